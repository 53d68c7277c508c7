//! The one-way street: a room of the crate uses only rooms before it, and inside `manual` the folders keep their order.

use paso_core::ROOMS;
use rstest::rstest;
use std::fs;
use std::path::{Path, PathBuf};

/// Every source file below a folder.
fn sources(folder: &Path) -> Vec<PathBuf> {
    let entries = fs::read_dir(folder).expect("a folder of sources").flatten().map(|e| e.path());
    let files = entries.flat_map(|path| if path.is_dir() { sources(&path) } else { vec![path] });
    files.filter(|p| p.extension().is_some_and(|e| e == "rs")).collect()
}

/// The names that stand behind `prefix` in the code of a file; comments do not count.
fn named<'a>(text: &'a str, prefix: &str) -> Vec<&'a str> {
    let code = text.lines().filter(|line| !line.trim_start().starts_with("//"));
    let name = |rest: &'a str| rest.split(|c: char| !(c.is_ascii_lowercase() || c == '_')).next().unwrap_or("");
    code.flat_map(|line| line.split(prefix).skip(1).map(name).collect::<Vec<_>>()).filter(|n| !n.is_empty()).collect()
}

/// The room that a file belongs to: the first name of its path below `root`.
fn room(root: &Path, file: &Path) -> String {
    let below = file.strip_prefix(root).expect("below the root");
    let first = below.components().next().expect("a name").as_os_str().to_string_lossy();
    first.trim_end_matches(".rs").to_owned()
}

/// "chain.rs uses checks" for each name behind `prefix` that comes later in `order` than the file's own room.
fn against(root: &Path, prefix: &str, order: &[&str]) -> Vec<String> {
    let place = |room: &str| order.iter().position(|r| *r == room);
    let mut found = Vec::new();
    for file in sources(root) {
        let own = room(root, &file);
        let Some(own) = place(&own) else { continue };
        let text = fs::read_to_string(&file).expect("a source");
        let later = named(&text, prefix).into_iter().filter(|n| place(n).is_some_and(|p| p > own));
        found.extend(later.map(|n| format!("{} uses {n}", file.display())));
    }
    found
}

fn folder(below: &str) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join(below)
}

#[rstest]
#[case("src", "crate::", &ROOMS)]
#[case("../reader/src", "crate::", &ROOMS)]
// An entity and its edits are one file each, so `model` and `edits` are one room.
#[case("src/manual", "manual::", &["model", "corrections", "drafting"])]
#[case("src/manual", "manual::", &["edits", "corrections", "drafting"])]
fn a_room_uses_only_rooms_before_it(#[case] root: &str, #[case] prefix: &str, #[case] order: &[&str]) {
    assert_eq!(against(&folder(root), prefix, order), Vec::<String>::new());
}

#[test]
fn every_room_has_its_place() {
    for root in [folder("src"), folder("../reader/src")] {
        let rooms = sources(&root).into_iter().map(|file| room(&root, &file)).filter(|r| r != "lib");
        let homeless: Vec<String> = rooms.filter(|r| !ROOMS.contains(&r.as_str())).collect();
        assert_eq!(homeless, Vec::<String>::new());
    }
}

#[test]
fn a_use_against_the_street_would_be_found() {
    let text = "// crate::publish is only spoken of\nuse crate::publish::guide;\nlet x = crate::order::jobs(m);";
    assert_eq!(named(text, "crate::"), ["publish", "order"]);
}
