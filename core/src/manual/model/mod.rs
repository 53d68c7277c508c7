//! What a manual holds: one file an aspect, its entities with the edits that change them.

pub(super) mod actions;
pub(super) mod cautions;
pub(super) mod connectors;
pub(super) mod evidence;
pub(super) mod fasteners;
pub(super) mod group_words;
pub(super) mod heats;
pub(super) mod holes;
pub(super) mod jobs;
pub(super) mod kit;
pub(super) mod layers;
pub(super) mod letters;
pub(super) mod notes;
pub(super) mod parts;
pub(super) mod recordings;
pub(super) mod requirements;
pub(super) mod screw_facts;
pub(super) mod seams;
pub(super) mod sentences;
pub(super) mod set_aside;
pub(super) mod steps;
pub(super) mod supply;
pub(super) mod typed;
pub(super) mod variants;
pub(super) mod weights;
