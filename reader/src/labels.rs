//! Words for people: one table an enum, and no second one anywhere.
//!
//! Screens, sentences, tables and files take their words from here, so that a thing is never called two names. A table is
//! written beside its enum by [`labels!`](crate::labels!); the compiler holds it complete.

use serde::Serialize;

/// An enum whose every value has a label.
pub trait Label: Copy + Eq + Serialize + 'static {
    /// The enum's name, as the API's schema has it.
    const OF: &'static str;
    /// Every value, in the order of a list to choose from.
    const ALL: &'static [Self];

    /// As it stands in a list, a table or a margin: "thread locker".
    fn label(self) -> &'static str;

    /// Inside a sentence; the label where nothing else was written.
    fn phrase(self) -> &'static str;

    /// The single key or letter that stands for it, where it has one.
    fn key(self) -> Option<&'static str>;

    /// The name in JSON.
    fn wire(self) -> String {
        match serde_json::to_value(self) {
            Ok(serde_json::Value::String(name)) => name,
            other => panic!("{} is no plain enum: {other:?}", Self::OF),
        }
    }

    /// The value that goes by this label, phrase or name, in any case.
    fn from_label(text: &str) -> Option<Self> {
        let text = text.trim();
        let is = |v: &&Self| {
            [v.label(), v.phrase()].iter().any(|l| l.eq_ignore_ascii_case(text)) || v.wire().eq_ignore_ascii_case(text)
        };
        Self::ALL.iter().find(is).copied()
    }

    /// All labels as a sentence lists them: "pan, countersunk or wafer".
    fn choices() -> String {
        let all: Vec<&str> = Self::ALL.iter().map(|v| v.label()).collect();
        match all.split_last() {
            Some((last, rest)) if !rest.is_empty() => format!("{} or {last}", rest.join(", ")),
            _ => all.join(""),
        }
    }
}

/// Writes the table of an enum: `Variant: "label"`, with `/ "phrase"` and `@ "key"` where there are such.
///
/// ```
/// # #[derive(Clone, Copy, PartialEq, Eq, serde::Serialize)] enum Locking { Liquid, Patch }
/// paso_reader::labels!(Locking { Liquid: "thread locker" / "with thread locker", Patch: "a patch" });
/// # use paso_reader::labels::Label;
/// assert_eq!(Locking::Liquid.phrase(), "with thread locker");
/// ```
#[macro_export]
macro_rules! labels {
    ($of:ident { $($variant:ident: $label:literal $(/ $phrase:literal)? $(@ $key:literal)?),+ $(,)? }) => {
        impl $crate::labels::Label for $of {
            const OF: &'static str = stringify!($of);
            const ALL: &'static [Self] = &[$(Self::$variant),+];

            fn label(self) -> &'static str {
                match self { $(Self::$variant => $label),+ }
            }

            fn phrase(self) -> &'static str {
                match self { $(Self::$variant => $crate::labels!(@first $($phrase,)? $label)),+ }
            }

            fn key(self) -> Option<&'static str> {
                match self { $(Self::$variant => $crate::labels!(@maybe $($key)?)),+ }
            }
        }
    };
    (@first $phrase:literal, $label:literal) => { $phrase };
    (@first $label:literal) => { $label };
    (@maybe $key:literal) => { Some($key) };
    (@maybe) => { None };
}

/// The table of one enum, for those who show it without knowing the type.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Table {
    /// The enum's name in the API's schema.
    pub of: &'static str,
    pub rows: Vec<Row>,
}

/// One value of an enum.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Row {
    /// As JSON has it.
    pub name: String,
    pub label: &'static str,
    pub phrase: &'static str,
    pub key: Option<&'static str>,
}

/// The table of an enum.
pub fn table<T: Label>() -> Table {
    let row = |v: &T| Row { name: v.wire(), label: v.label(), phrase: v.phrase(), key: v.key() };
    Table { of: T::OF, rows: T::ALL.iter().map(row).collect() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
    #[serde(rename_all = "snake_case")]
    enum Fruit {
        Apple,
        SourCherry,
        Fig,
    }
    crate::labels!(Fruit { Apple: "apple" / "an apple" @ "A", SourCherry: "cherry, sour", Fig: "fig" });

    #[rstest]
    #[case("apple", Some(Fruit::Apple))]
    #[case(" An Apple ", Some(Fruit::Apple))]
    #[case("sour_cherry", Some(Fruit::SourCherry))]
    #[case("cherry", None)]
    #[case("", None)]
    fn is_found_by_every_name_it_goes_by(#[case] text: &str, #[case] fruit: Option<Fruit>) {
        assert_eq!(Fruit::from_label(text), fruit);
    }

    #[test]
    fn a_table_has_a_row_a_value() {
        let table = table::<Fruit>();
        assert_eq!((table.of, table.rows.len(), table.rows[1].name.as_str()), ("Fruit", 3, "sour_cherry"));
        assert_eq!((table.rows[0].key, table.rows[1].key), (Some("A"), None));
        assert_eq!(Fruit::choices(), "apple, cherry, sour or fig");
    }
}
