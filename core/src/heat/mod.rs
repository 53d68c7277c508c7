//! Heat that opens a bond: how warm it gets, when, and what else gets warm meanwhile.
//!
//! Physics, and nothing of manuals: a stack of layers is warmed from its outer face, and every answer comes as a band,
//! because contact and air are never known well. `conduction` solves, `media` knows what layers are made of, `plan` asks the
//! questions that somebody at the bench has. A thermometer at the edge beats all of it.

pub mod conduction;
pub mod media;
pub mod plan;
pub mod presets;
pub mod window;
