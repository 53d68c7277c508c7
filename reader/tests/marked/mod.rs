//! Answers that stand in files beside what was said, some of them marked as not heard yet.

/// What is wrong with one of them; nothing where it is heard and unmarked, or marked and not heard.
pub fn wrong(said: &str, missed: bool, right: &str, heard: &str) -> String {
    if missed != (heard == right) {
        return String::new();
    }
    let now = if missed { "is heard now: take its mark off" } else { "is heard otherwise" };
    format!("\n“{said}” {now}\n  right  {right}\n  heard  {heard}")
}
