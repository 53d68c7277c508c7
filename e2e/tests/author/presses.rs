//! From the file to the published guide in few presses.

use paso_e2e::{App, Done, presses};
use std::path::PathBuf;

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
    let narrations = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../reader/tests/narrations/lifelike");
    let app = App::start(false).await;
    let tally = presses::count(&app, &narrations.join(format!("{name}.md")), &[]).await?;
    println!("{name}: {}", tally.told());
    assert_eq!(tally.blocked, "", "{}", tally.told());
    assert!(tally.all() <= MOST, "{}", tally.told());
    app.end().await
}
