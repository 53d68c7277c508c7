//! How words sound, coarsely: enough to tell a misheard word of the trade from another word.

/// A word as one would spell its sounds: `flex` and `flecks` are both `fleks`.
pub(super) fn spelled(word: &str) -> String {
    word.replace("ph", "f").replace("ck", "k").replace('x', "ks").replace("que", "k")
}

/// How a word sounds, coarsely: consonant classes in order, vowels dropped after the first sound.
pub(super) fn sound(word: &str) -> String {
    let word = spelled(word).replace("gh", "g");
    let class = |c: char| match c {
        'b' | 'p' => Some('b'),
        'f' | 'v' => Some('f'),
        'c' | 'k' | 'g' | 'q' => Some('k'),
        's' | 'z' => Some('s'),
        'd' | 't' => Some('t'),
        'm' | 'n' => Some('m'),
        'l' => Some('l'),
        'r' => Some('r'),
        'j' => Some('j'),
        _ => None,
    };
    let mut out = String::new();
    for c in word.chars().filter_map(class) {
        if !out.ends_with(c) {
            out.push(c);
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("flecks", "flex")]
    #[case("filips", "philips")]
    #[case("torques", "torx")]
    #[case("casket", "gasket")]
    fn words_that_sound_alike_share_a_sound(#[case] heard: &str, #[case] meant: &str) {
        assert_eq!(sound(heard), sound(meant));
    }

    #[rstest]
    #[case("battery", "bracket")]
    #[case("cover", "cable")]
    fn words_that_do_not_sound_alike_do_not(#[case] a: &str, #[case] b: &str) {
        assert_ne!(sound(a), sound(b));
    }
}
