//! What is connected: how each connector opens and is made, how its cable ran, what is live when, and what still hangs on it.

pub mod kinds;
pub mod lives;
pub mod power;
pub mod routes;
pub mod table;
pub mod trials;
