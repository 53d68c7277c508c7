//! From the file to the published guide in few presses.

use paso_e2e::presses::{self, Change, Place};
use paso_e2e::{App, Done};
use std::path::PathBuf;

#[rocket::async_test]
async fn what_an_author_writes_on_the_way_stands_in_the_guide() -> Done {
    let change =
        |step: &str, place: Place, words: &str| Change { step: step.to_owned(), place, words: words.to_owned() };
    let changes = [
        change("Open the front door", Place::AtTheEnd, "Hold the door open."),
        change("Remove the frame", Place::Behind("Release the hooks".to_owned()), "Support the frame by hand."),
        change("Remove the printer", Place::Instead("Remove the printer".to_owned()), "Lift the printer off."),
    ];
    let app = App::start(false).await;
    let tally = presses::count(&app, &narration("02-parking-meter"), &changes).await?;
    assert_eq!((tally.blocked.as_str(), tally.written), ("", 2 + 4 + 4), "{}", tally.told());
    let guide = app.words("[aria-label='The guide as its reader sees it']").await?;
    let at = |words: &str| guide.find(words).unwrap_or_else(|| panic!("“{words}” does not stand in the guide"));
    assert!(
        at("Release the hooks") < at("Support the frame by hand.")
            && at("Hold the door open.") < at("Release the hooks")
    );
    at("Lift the printer off.");
    app.end().await
}

fn narration(name: &str) -> PathBuf {
    let narrations = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../reader/tests/narrations/lifelike");
    narrations.join(format!("{name}.md"))
}

/// A little more than the dearer one of the two takes.
const MOST: usize = 32;

#[rocket::async_test]
async fn a_meter_is_published_with_few_presses() -> Done {
    published_with_few("02-parking-meter").await
}

#[rocket::async_test]
async fn a_timer_is_published_with_few_presses() -> Done {
    published_with_few("08-pond-timer").await
}

async fn published_with_few(name: &str) -> Done {
    let app = App::start(false).await;
    let tally = presses::count(&app, &narration(name), &[]).await?;
    println!("{name}: {}", tally.told());
    assert_eq!(tally.blocked, "", "{}", tally.told());
    assert!(tally.all() <= MOST, "{}", tally.told());
    app.end().await
}
