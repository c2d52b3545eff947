using CsCheck;
using Pyrometron.Core.Access;

namespace Pyrometron.Core.Tests.Access;

/// <summary>
/// Passwords by NIST SP 800-63B-4, section 3.1.1.2 (from memory): 15 characters where a password alone lets in, no rules on what
/// characters, at least 64 allowed, compared with common and expected values.
/// </summary>
public sealed class PasswordRulesTests
{
    private static bool IsTaken(string? password, params string[] names) =>
        PasswordRules.Refuse(password, names, _ => false) is null;

    [Theory]
    [InlineData("kelp lantern tide rope")]
    [InlineData("correcthorsebattery")]
    [InlineData("ночной прилив и фонарь")]
    [InlineData("海の灯台と夜の満ち潮と青い船の綱")]
    [InlineData("🦑🐚🐳🌊⚓🪸🦀🐙🐠🐟🐡🦐🦞🦪🪝")]
    public void Long_ones_of_any_script_are_taken(string password) => Assert.True(IsTaken(password));

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("Tr0ub4dor&3")]
    [InlineData("14 characters!")]
    public void Short_ones_and_what_is_no_text_are_not(string? password) => Assert.False(IsTaken(password));

    [Fact]
    public void Half_of_a_pair_of_surrogates_is_no_text() => Assert.False(IsTaken("\ud83e lone half of a pair"));

    [Theory]
    [InlineData("aaaaaaaaaaaaaaaaaaaa")]
    [InlineData("lanternlanternlantern")]
    [InlineData("abcabcabcabcabcabc")]
    [InlineData("1234567890123456789")]
    [InlineData("qwertyuiopasdfghjkl")]
    [InlineData("zyxwvutsrqponmlkjihg")]
    public void Rows_and_repetitions_are_tried_early(string password) => Assert.False(IsTaken(password));

    [Fact]
    public void Little_more_than_a_known_name_is_not_taken()
    {
        Assert.False(IsTaken("pyrometron 12345", "pyrometron"));
        Assert.False(IsTaken("M.Larkspur-Wren1", "larkspur-wren"));
        Assert.True(IsTaken("larkspur grows over the old jetty", "larkspur"));
    }

    [Fact]
    public void Common_ones_are_not_taken_with_digits_around_them_either()
    {
        static bool Common(string text) => text is "sunshinesunbeam" or "qazxcvbnmlkjhgf";
        Assert.NotNull(PasswordRules.Refuse("sunshinesunbeam", [], Common));
        Assert.NotNull(PasswordRules.Refuse("SunshineSunbeam", [], Common));
        Assert.NotNull(PasswordRules.Refuse("2026!sunshinesunbeam!99", [], Common));
        Assert.Null(PasswordRules.Refuse("sunshine sunbeam lighthouse", [], Common));
    }

    [Fact]
    public void Nothing_that_is_typed_breaks_it() =>
        Gen.String[0, 400].Sample(text => PasswordRules.Refuse(text, ["mira"], _ => false) is null or { Template.Length: > 0 });

    [Fact]
    public void Sixty_four_characters_and_more_are_taken()
    {
        const string words = "the tide turns over the reef while lanterns on the quay burn low; ";
        Assert.True(IsTaken(words[..64]));
        Assert.True(IsTaken((words + words + words + "and out")[..200]));
        Assert.False(IsTaken(string.Concat(Enumerable.Range(0, 300).Select(i => (char)('a' + (i * 7 % 26))))));
    }
}
