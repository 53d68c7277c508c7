//! Embeds the built front end; without one, an empty folder keeps the crate building.

fn main() {
    let dist = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../web/dist");
    std::fs::create_dir_all(&dist).expect("a folder for the front end");
    println!("cargo:rerun-if-changed={}", dist.display());
}
