//! The server: API, database and command line around `paso-core`.

pub mod api;
pub mod author;
pub mod bundle;
pub mod client;
pub mod demo;
pub mod entity;
pub mod gate;
pub mod headers;
pub mod metrics;
pub mod migration;
pub mod operate;
pub mod page;
pub mod problem;
pub mod read;
pub mod routes;
pub mod serve;
pub mod store;
