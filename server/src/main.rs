//! `paso`: the command line.

use clap::{Parser, Subcommand};
use paso_cluster::{Cluster, Durability};
use paso_server::serve::ServeError;
use paso_server::store::Store;
use paso_server::{api, client, demo, operate, read, serve};
use std::io::Write;
use std::path::PathBuf;
use std::process::ExitCode;

/// Turns the recording of a disassembly into a repair guide.
#[derive(Parser)]
#[command(name = "paso", version)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve the application, with a database of its own unless DATABASE_URL names one.
    Serve {
        /// Port to serve on; 0 takes a free one.
        #[arg(long, default_value_t = 8000)]
        port: u16,
        /// Folder of the private database.
        #[arg(long, default_value = ".paso/data")]
        data: PathBuf,
        /// Start with an empty shelf.
        #[arg(long)]
        no_demo: bool,
        /// Another name that the server is reached by, such as that of a proxy; may be given several times.
        #[arg(long = "host")]
        hosts: Vec<String>,
    },
    /// Read a recording and say what it tells.
    Read {
        /// Print the fact sheet as JSON.
        #[arg(long)]
        facts: bool,
        file: PathBuf,
    },
    /// Draft the guide that a recording tells, as Markdown.
    Draft {
        /// Print the drafted acts as JSON.
        #[arg(long)]
        json: bool,
        file: PathBuf,
    },
    /// Write all that is kept into one file; the server may go on meanwhile.
    Backup {
        #[command(flatten)]
        place: Place,
        file: PathBuf,
    },
    /// Put a backup into an empty database.
    Restore {
        #[command(flatten)]
        place: Place,
        file: PathBuf,
    },
    /// Read all that is kept and say what does not fit.
    Check {
        #[command(flatten)]
        place: Place,
    },
    /// Write a manual with its recordings and revisions into a file that another installation imports.
    Export {
        #[command(flatten)]
        place: Place,
        /// Id of the manual, as in its address.
        manual: uuid::Uuid,
        file: PathBuf,
    },
    /// Put a manual that was exported on the shelf.
    Import {
        #[command(flatten)]
        place: Place,
        file: PathBuf,
    },
    /// Print the OpenAPI document.
    Openapi,
    /// Print the words, stops and shapes that the front end takes from the core, as a TypeScript module.
    Tables,
}

/// Which database is meant: that of DATABASE_URL, or the private one of a folder.
#[derive(clap::Args)]
struct Place {
    /// Folder of the private database.
    #[arg(long, default_value = ".paso/data")]
    data: PathBuf,
}

impl Place {
    fn store<T>(&self, work: impl AsyncFnOnce(&Store) -> Result<T, String>) -> Result<T, String> {
        operate::with_database(&self.data, |url| runtime().block_on(operate::with_store(url, work)))
    }
}

fn main() -> ExitCode {
    let done = match Cli::parse().command {
        Command::Serve { port, data, no_demo, hosts } => start(port, data, !no_demo, &hosts).map_err(|e| e.to_string()),
        Command::Read { facts, file } => {
            (if facts { read::facts(&file) } else { read::summary(&file) }).and_then(|text| tell_line(&text))
        }
        Command::Draft { json, file } => {
            (if json { read::draft_json(&file) } else { read::draft(&file) }).and_then(|text| tell_line(&text))
        }
        Command::Backup { place, file } => operate::with_database(&place.data, |url| operate::backup(url, &file)),
        Command::Restore { place, file } => {
            operate::with_new_database(&place.data, |url| runtime().block_on(operate::restore(url, &file)))
        }
        Command::Check { place } => place.store(operate::check).and_then(|says| tell_line(&says)),
        Command::Export { place, manual, file } => {
            place.store(async |store| operate::export(store, manual, &file).await)
        }
        Command::Import { place, file } => {
            place.store(async |store| operate::import(store, &file).await).map(|id| println!("{id}"))
        }
        Command::Openapi => tell(&api::document()),
        Command::Tables => tell(&client::tables()),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(sentence) => {
            eprintln!("paso: {sentence}");
            ExitCode::FAILURE
        }
    }
}

/// Prints a text with one end of line.
fn tell_line(text: &str) -> Result<(), String> {
    tell(&format!("{}\n", text.trim_end()))
}

/// Prints a text. Whoever reads only its beginning (`| head`) has what they wanted.
fn tell(text: &str) -> Result<(), String> {
    let mut out = std::io::stdout().lock();
    match out.write_all(text.as_bytes()).and_then(|()| out.flush()) {
        Err(e) if e.kind() != std::io::ErrorKind::BrokenPipe => Err(format!("The answer cannot be written: {e}.")),
        _ => Ok(()),
    }
}

fn start(port: u16, data: PathBuf, with_demo: bool, hosts: &[String]) -> Result<(), ServeError> {
    log();
    let given = std::env::var("DATABASE_URL").ok().filter(|url| !url.is_empty());
    let cluster = match given {
        Some(_) => None,
        None => Some(Cluster::start(&data, Durability::Safe)?),
    };
    let url = match (&given, &cluster) {
        (Some(url), _) => url.clone(),
        (None, Some(cluster)) => {
            cluster.create_database("paso")?;
            cluster.url("paso")
        }
        (None, None) => unreachable!("without a given database there is a cluster"),
    };
    let served = runtime().block_on(async {
        let store = serve::open(&url).await?;
        if with_demo {
            demo::load_once(&store).await.map_err(|e| ServeError::Demo(e.to_string()))?;
        }
        serve::run(store, port, hosts, cluster.as_ref()).await
    });
    if let Some(cluster) = cluster {
        cluster.stop(false)?;
    }
    served
}

fn runtime() -> tokio::runtime::Runtime {
    tokio::runtime::Builder::new_multi_thread().enable_all().build().expect("threads for the server")
}

/// JSON lines on standard error, panics among them; `PASO_LOG` sets the level.
fn log() {
    let filter =
        tracing_subscriber::EnvFilter::try_from_env("PASO_LOG").unwrap_or_else(|_| "warn,paso_server=info".into());
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
    std::panic::set_hook(Box::new(|panic| {
        let place = panic.location().map(ToString::to_string).unwrap_or_default();
        let said = panic.payload_as_str().unwrap_or("something that is no text");
        tracing::error!(place, said, "panic");
    }));
}
