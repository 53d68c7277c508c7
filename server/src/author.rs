//! Who is asking: a name the browser sends, until accounts arrive.
//!
//! This guard is the one place that decides it. Everything else takes an [`Author`] and asks no further.

use rocket::http::RawStr;
use rocket::outcome::Outcome;
use rocket::request::{self, FromRequest, Request};

/// The name that edits are written down under.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Author(pub String);

/// The name of somebody who gave none.
pub const LOCAL: &str = "Local author";
/// Percent-encoded, because header fields hold ASCII only.
const HEADER: &str = "Paso-Author";
const MAX_CHARS: usize = 60;

impl Author {
    fn named(header: &str) -> Option<Self> {
        let name = RawStr::new(header).percent_decode().ok()?.trim().to_owned();
        let fits = !name.is_empty() && name.chars().count() <= MAX_CHARS && !name.chars().any(char::is_control);
        fits.then_some(Self(name))
    }
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Author {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> request::Outcome<Self, Self::Error> {
        let named = request.headers().get_one(HEADER).and_then(Author::named);
        Outcome::Success(named.unwrap_or_else(|| Self(LOCAL.to_owned())))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Ann", Some("Ann"))]
    #[case("J%C3%BCrgen%20B.", Some("Jürgen B."))]
    #[case("%0A", None)]
    #[case("", None)]
    #[case("%FF", None)]
    fn takes_names_that_can_be_shown(#[case] header: &str, #[case] name: Option<&str>) {
        assert_eq!(Author::named(header).map(|a| a.0).as_deref(), name);
    }
}
