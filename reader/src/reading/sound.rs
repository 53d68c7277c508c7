//! How words sound, coarsely: enough to tell a misheard word of the trade from another word.

use rphonetic::DoubleMetaphone;

/// A word as one would spell its sounds: `flex` and `flecks` are both `fleks`.
pub(super) fn spelled(word: &str) -> String {
    word.replace("ph", "f")
        .replace("ck", "k")
        .replace('x', "ks")
        .replace("que", "k")
        .replace("tch", "ʃ")
        .replace("sh", "ʃ")
        .replace("ch", "ʃ")
}

/// How a word sounds: its code by Double Metaphone, where voiced and voiceless twins ("casket", "gasket") count as one.
pub(super) fn sound(word: &str) -> String {
    let [first, _] = sounds(word);
    first
}

/// Both ways in which a spelling may be said: "sponger" with a hard and with a soft g.
pub(super) fn sounds(word: &str) -> [String; 2] {
    // Longer codes than the usual four tell "thermal pad" from "thermometer".
    const LENGTH: usize = 12;
    let letters: String = word.chars().filter(char::is_ascii_alphabetic).collect();
    let code = DoubleMetaphone::new(Some(LENGTH)).double_metaphone(&letters);
    [unvoiced(&code.primary()), unvoiced(&code.alternate())]
}

fn unvoiced(code: &str) -> String {
    let twin = |c: char| match c {
        'B' => 'P',
        'V' => 'F',
        'G' => 'K',
        'D' => 'T',
        'Z' => 'S',
        'N' => 'M',
        c => c,
    };
    code.chars().map(twin).collect()
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
