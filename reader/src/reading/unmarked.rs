//! Contractions that lost their apostrophe: recognisers and hurried captions write "theres", "dont" and "its" for
//! "there's", "don't" and "it's". A verb is lost with the mark, and a refusal becomes an order; so it is put back.

use super::lexicon::LEXICON;

/// The word with its apostrophe, where it can only be a contraction; `next` is the word behind it.
pub(super) fn restored<'a>(word: &'a str, next: &str) -> &'a str {
    match word {
        "its" if is_it(next) => "it's",
        // "lets go" of a latch is a verb; "lets see" is an order.
        "lets" if LEXICON.verbs.contains_key(next) && next != "go" => "let's",
        "were" if matches!(next, "gonna" | "going" | "putting" | "taking" | "doing") => "we're",
        "ill" if LEXICON.verbs.contains_key(next) || matches!(next, "just" | "show" | "be" | "also") => "i'll",
        _ => MARKED.iter().find(|(bare, _)| *bare == word).map_or(word, |(_, marked)| marked),
    }
}

/// "its a", "its not", "its on the": is, and no owner.
fn is_it(next: &str) -> bool {
    let c = &LEXICON.classes;
    matches!(next, "in" | "on" | "out" | "off" | "up")
        || c.determiner.contains(next)
        || c.negation.contains(next)
        || c.preposition.contains(next)
        || c.pronoun.contains(next) && next != "own"
        || matches!(
            next,
            "got" | "gonna" | "going" | "just" | "all" | "only" | "really" | "so" | "very" | "still" | "been"
        )
}

const MARKED: [(&str, &str); 37] = [
    ("arent", "aren't"),
    ("cant", "can't"),
    ("couldnt", "couldn't"),
    ("didnt", "didn't"),
    ("doesnt", "doesn't"),
    ("dont", "don't"),
    ("hadnt", "hadn't"),
    ("hasnt", "hasn't"),
    ("havent", "haven't"),
    ("heres", "here's"),
    ("hes", "he's"),
    ("im", "i'm"),
    ("isnt", "isn't"),
    ("itll", "it'll"),
    ("ive", "i've"),
    ("mustnt", "mustn't"),
    ("neednt", "needn't"),
    ("shes", "she's"),
    ("shouldnt", "shouldn't"),
    ("thatll", "that'll"),
    ("thats", "that's"),
    ("theres", "there's"),
    ("theyd", "they'd"),
    ("theyll", "they'll"),
    ("theyre", "they're"),
    ("theyve", "they've"),
    ("wasnt", "wasn't"),
    ("werent", "weren't"),
    ("weve", "we've"),
    ("whats", "what's"),
    ("wheres", "where's"),
    ("wont", "won't"),
    ("wouldnt", "wouldn't"),
    ("youd", "you'd"),
    ("youll", "you'll"),
    ("youre", "you're"),
    ("youve", "you've"),
];

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("theres", "a", "there's")]
    #[case("dont", "pull", "don't")]
    #[case("its", "a", "it's")]
    #[case("its", "on", "it's")]
    #[case("its", "cable", "its")]
    #[case("lets", "remove", "let's")]
    #[case("lets", "go", "lets")]
    #[case("were", "gonna", "we're")]
    #[case("were", "glued", "were")]
    #[case("ill", "unplug", "i'll")]
    #[case("wont", "come", "won't")]
    #[case("cantilever", "arm", "cantilever")]
    fn the_mark_is_put_back_where_it_can_only_have_been(#[case] word: &str, #[case] next: &str, #[case] wanted: &str) {
        assert_eq!(restored(word, next), wanted);
    }

    #[test]
    fn the_table_can_be_searched_by_eye() {
        assert!(MARKED.windows(2).all(|w| w[0].0 < w[1].0));
    }
}
