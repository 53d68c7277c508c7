//! The author's day in the real interface.

// A day is told in one piece.
#![allow(clippy::too_many_lines)]

mod access;
mod cables;
mod cautions;
mod chain;
mod details;
mod device;
mod fold;
mod keyboard;
mod landing;
mod listen;
mod lost_and_clashing;
mod pointer;
mod presses;
mod screws;
mod seams;
mod sentences;
mod settle;
mod words_kept;

/// A narration with a screw that does not come back.
const FAN: &str = "# Recording: Fan swap\n\n\
[0:00] Hello and welcome back to the channel.\n\n\
[0:10] Tools required. Phillips PH1 screwdriver, spudger.\n\n\
[0:20] Remove four Phillips PH1 screws, length 8 millimetres, from the base plate. Lift off the base plate.\n\n\
[0:40] Caution. The wires tear easily. Disconnect the battery cable. Pull out the battery.\n\n\
[1:00] Remove two torx T6 screws, length 4 millimetres, from the fan. Lift out the fan.\n\n\
[1:20] Now the new fan goes in. Put the fan back in and install two torx T6 screws, length 4 millimetres, in the fan.\n\n\
[1:40] Put the battery back in. Connect the battery cable.\n\n\
[2:00] Put the base plate on and install three Phillips PH1 screws, length 8 millimetres, in the base plate.\n";
