use clap::{Parser, Subcommand};
use std::path::PathBuf;

/// Turns the recording of a disassembly into a repair guide.
#[derive(Parser)]
#[command(name = "paso", version)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Read a recording and say what it tells.
    Read {
        /// Print the fact sheet as JSON.
        #[arg(long)]
        facts: bool,
        file: PathBuf,
    },
}

fn main() -> std::process::ExitCode {
    let Command::Read { facts, file } = Cli::parse().command;
    let printed = if facts { paso_server::read::facts(&file) } else { paso_server::read::summary(&file) };
    match printed {
        Ok(text) => { println!("{text}"); std::process::ExitCode::SUCCESS }
        Err(e) => { eprintln!("paso: {e}"); std::process::ExitCode::FAILURE }
    }
}
