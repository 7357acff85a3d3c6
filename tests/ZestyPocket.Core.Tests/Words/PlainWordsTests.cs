using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class PlainWordsTests
{
    [Fact]
    public void A_letter_and_its_accent_become_one_character() => PlainWords.Clean("cafe\u0301").ShouldBe("caf\u00E9");

    [Fact]
    public void Line_ends_are_one_sign_and_control_signs_go() =>
        PlainWords.Clean("\uFEFFa\r\nb\rc\0\u0007\td").ShouldBe("a\nb\nc\td");

    [Fact]
    public void Half_a_character_is_shown_as_one_that_is_missing() => PlainWords.Clean("a\uD83Db").ShouldBe("a\uFFFDb");

    [Fact]
    public void A_name_shows_the_signs_that_would_turn_it_round() =>
        PlainWords.Name("photo\u202Egpj.exe\u2066x").ShouldBe("photo␣gpj.exe␣x");

    [Fact]
    public void A_Hebrew_name_stays_as_it_is() =>
        PlainWords.Name(" \u05D0\u05D1\u200F ").ShouldBe("\u05D0\u05D1\u200F");
}
