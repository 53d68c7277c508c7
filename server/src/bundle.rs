//! A manual with all that belongs to it, as one ZIP file of open formats that another installation opens.
//!
//! | file | what |
//! | --- | --- |
//! | `bundle.json` | version of this layout |
//! | `manual.json` | the manual, in its own format |
//! | `recordings/ID.json` | title of a recording |
//! | `recordings/ID.source` | its file, byte by byte as it was brought |
//! | `revisions/N.json` | a published revision with its text and the manual as it stood |

use serde::{Deserialize, Serialize};
use std::io::{Cursor, Read, Write};
use thiserror::Error;
use time::OffsetDateTime;
use uuid::Uuid;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// Version of the layout above.
const VERSION: u32 = 1;
/// Largest file inside, unpacked: a recording is smaller, and so is a manual of thousands of steps.
const MAX_FILE: u64 = 64_000_000;
/// Most files inside.
const MAX_FILES: usize = 2_000;

/// What a bundle holds.
#[derive(Debug, Clone, PartialEq)]
pub struct Bundle {
    /// The manual's own JSON.
    pub manual: String,
    pub recordings: Vec<BundledRecording>,
    pub revisions: Vec<BundledRevision>,
}

#[derive(Debug, Clone, PartialEq)]
pub struct BundledRecording {
    pub id: Uuid,
    pub title: String,
    pub source: Vec<u8>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BundledRevision {
    pub number: i32,
    pub author: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    pub seq: i64,
    pub markdown: String,
    pub manual: serde_json::Value,
    pub rules: String,
}

#[derive(Serialize, Deserialize)]
struct About {
    bundle: u32,
}

#[derive(Serialize, Deserialize)]
struct Titled {
    title: String,
}

/// Why a file is no bundle.
#[derive(Debug, Error)]
pub enum BundleError {
    #[error("The file is no bundle: {0}. Bring a ZIP file that was exported here.")]
    NotZip(#[from] zip::result::ZipError),
    #[error("The bundle lacks “{0}”.")]
    Lacks(&'static str),
    #[error("The bundle has version {0}; this program reads version {VERSION}. Open it with a newer version.")]
    TooNew(u32),
    #[error("“{name}” in the bundle cannot be read: {problem}.")]
    Entry { name: String, problem: String },
    #[error("The bundle holds {0} files; at most {MAX_FILES} are taken.")]
    TooMany(usize),
}

impl Bundle {
    /// Packs everything.
    ///
    /// # Errors
    /// Those of the packer, which memory does not have.
    pub fn pack(&self) -> Result<Vec<u8>, BundleError> {
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let mut put = |name: String, bytes: &[u8]| -> Result<(), BundleError> {
            zip.start_file(&name, SimpleFileOptions::default())?;
            zip.write_all(bytes).map_err(|e| BundleError::Entry { name, problem: e.to_string() })
        };
        put("bundle.json".to_owned(), &json(&About { bundle: VERSION }))?;
        put("manual.json".to_owned(), self.manual.as_bytes())?;
        for recording in &self.recordings {
            put(format!("recordings/{}.json", recording.id), &json(&Titled { title: recording.title.clone() }))?;
            put(format!("recordings/{}.source", recording.id), &recording.source)?;
        }
        for revision in &self.revisions {
            put(format!("revisions/{}.json", revision.number), &json(revision))?;
        }
        Ok(zip.finish()?.into_inner())
    }

    /// Reads a bundle; nothing is written anywhere.
    ///
    /// # Errors
    /// A sentence that names the file inside and what is wrong with it.
    pub fn open(bytes: &[u8]) -> Result<Self, BundleError> {
        let mut zip = ZipArchive::new(Cursor::new(bytes))?;
        if zip.len() > MAX_FILES {
            return Err(BundleError::TooMany(zip.len()));
        }
        let names: Vec<String> = zip.file_names().map(|n| n.map(Into::into)).collect::<Result<_, _>>()?;
        let about: About = match names.iter().find(|n| *n == "bundle.json") {
            Some(name) => parse(name, &entry(&mut zip, name)?)?,
            None => return Err(BundleError::Lacks("bundle.json")),
        };
        if about.bundle != VERSION {
            return Err(BundleError::TooNew(about.bundle));
        }
        if !names.iter().any(|n| n == "manual.json") {
            return Err(BundleError::Lacks("manual.json"));
        }
        let manual = text("manual.json", entry(&mut zip, "manual.json")?)?;
        let mut bundle = Self { manual, recordings: Vec::new(), revisions: Vec::new() };
        for name in &names {
            if let Some(id) = name.strip_prefix("recordings/").and_then(|n| n.strip_suffix(".source")) {
                let id = id
                    .parse()
                    .map_err(|_| BundleError::Entry { name: name.clone(), problem: "its name is no id".to_owned() })?;
                let about = format!("recordings/{id}.json");
                let titled: Titled = parse(&about, &entry(&mut zip, &about)?)?;
                let source = entry(&mut zip, name)?;
                bundle.recordings.push(BundledRecording { id, title: titled.title, source });
            } else if name.starts_with("revisions/") && name.ends_with(".json") {
                bundle.revisions.push(parse(name, &entry(&mut zip, name)?)?);
            }
        }
        bundle.revisions.sort_by_key(|r| r.number);
        Ok(bundle)
    }
}

fn json<T: Serialize>(value: &T) -> Vec<u8> {
    serde_json::to_vec_pretty(value).expect("plain data")
}

fn parse<T: serde::de::DeserializeOwned>(name: &str, bytes: &[u8]) -> Result<T, BundleError> {
    serde_json::from_slice(bytes).map_err(|e| BundleError::Entry { name: name.to_owned(), problem: e.to_string() })
}

fn text(name: &str, bytes: Vec<u8>) -> Result<String, BundleError> {
    String::from_utf8(bytes).map_err(|e| BundleError::Entry { name: name.to_owned(), problem: e.to_string() })
}

/// One file, unpacked no further than its limit: what it says of its size is not believed.
fn entry(zip: &mut ZipArchive<Cursor<&[u8]>>, name: &str) -> Result<Vec<u8>, BundleError> {
    let bad = |problem: String| BundleError::Entry { name: name.to_owned(), problem };
    let file = zip.by_name(name).map_err(|e| bad(e.to_string()))?;
    let mut bytes = Vec::new();
    file.take(MAX_FILE + 1).read_to_end(&mut bytes).map_err(|e| bad(e.to_string()))?;
    if bytes.len() as u64 > MAX_FILE {
        return Err(bad(format!("it unpacks to more than {MAX_FILE} bytes")));
    }
    Ok(bytes)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use serde_json::json;

    fn bundle() -> Bundle {
        let recording =
            BundledRecording { id: Uuid::from_u128(7), title: "Lamp".into(), source: vec![0xff, 0, 10, 13] };
        let revision = BundledRevision {
            number: 3,
            author: "Ann".into(),
            at: OffsetDateTime::UNIX_EPOCH,
            seq: 12,
            markdown: "# Lamp\n".into(),
            manual: json!({ "format": 2 }),
            rules: "0.1.0".into(),
        };
        Bundle { manual: "{}".into(), recordings: vec![recording], revisions: vec![revision] }
    }

    /// A ZIP of these files.
    fn zip(files: &[(&str, &[u8])]) -> Vec<u8> {
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        for (name, bytes) in files {
            zip.start_file(*name, SimpleFileOptions::default()).expect("memory");
            zip.write_all(bytes).expect("memory");
        }
        zip.finish().expect("memory").into_inner()
    }

    #[test]
    fn goes_both_ways() {
        let packed = bundle().pack().expect("packed");
        assert_eq!(Bundle::open(&packed).expect("a bundle"), bundle());
    }

    #[rstest]
    #[case::no_zip(b"hello".to_vec(), "The file is no bundle")]
    #[case::another(zip(&[("a.txt", b"a")]), "lacks “bundle.json”")]
    #[case::newer(zip(&[("bundle.json", br#"{"bundle": 9}"#)]), "has version 9")]
    #[case::no_manual(zip(&[("bundle.json", br#"{"bundle": 1}"#)]), "lacks “manual.json”")]
    #[case::name(zip(&[("bundle.json", br#"{"bundle": 1}"#), ("manual.json", b"{}"), ("recordings/x.source", b"")]), "“recordings/x.source” in the bundle cannot be read: its name is no id")]
    #[case::revision(zip(&[("bundle.json", br#"{"bundle": 1}"#), ("manual.json", b"{}"), ("revisions/1.json", b"{}")]), "“revisions/1.json” in the bundle cannot be read: missing field")]
    #[case::bomb(zip(&[("bundle.json", br#"{"bundle": 1}"#), ("manual.json", &vec![b' '; 64_000_001])]), "“manual.json” in the bundle cannot be read: it unpacks to more than")]
    fn refuses_in_a_sentence(#[case] bytes: Vec<u8>, #[case] says: &str) {
        let refused = Bundle::open(&bytes).expect_err("no bundle").to_string();
        assert!(refused.contains(says), "{refused}");
    }

    #[test]
    fn a_bundle_that_broke_off_is_refused() {
        let packed = bundle().pack().expect("packed");
        for cut in [1, packed.len() / 2, packed.len() - 1] {
            assert!(Bundle::open(&packed[..cut]).is_err());
        }
    }
}
