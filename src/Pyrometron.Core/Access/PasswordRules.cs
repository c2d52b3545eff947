using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Access;

/// <summary>
/// Which passwords are taken: long ones that nobody tries first, of any characters, without an end (NIST SP 800-63B-4, section
/// 3.1.1.2; figures from memory). Whoever takes one in brings it into normal form (NFKC) first: typed on another keyboard it is
/// the same. No rule asks for digits or signs: those make people write "Password1!".
/// </summary>
public static class PasswordRules
{
    /// <summary>The shortest that is taken, characters.</summary>
    public const int Shortest = 15;

    /// <summary>The longest that is taken, characters: a bound on the work, not on anybody's memory.</summary>
    public const int Longest = 256;

    /// <summary>Fewer different characters than this make no password.</summary>
    private const int FewestDifferent = 5;

    /// <summary>What follows one another in an alphabet or on a keyboard's rows.</summary>
    private static readonly string[] Rows = ["abcdefghijklmnopqrstuvwxyz", "01234567890", "qwertyuiop", "asdfghjkl", "zxcvbnm"];

    /// <summary>Why a password is not taken, or null.</summary>
    /// <param name="names">What anybody knows of its owner: names, the name of the program.</param>
    /// <param name="isCommon">Whether a text is among the passwords that many people have; asked in small letters.</param>
    public static Message? Refuse(string? password, IEnumerable<string> names, Func<string, bool> isCommon)
    {
        if (password is null || !IsText(password) || password.EnumerateRunes().Count() < Shortest)
            return Message.Of(
                "A password has {least} characters or more. Four or five words that have nothing to do with one another are easy to remember.",
                Value.Count("least", Shortest)
            );
        var plain = password.ToLowerInvariant();
        if (plain.Length > Longest)
            return Message.Of("A password has {most} characters at most.", Value.Count("most", Longest));
        if (plain.Distinct().Count() < FewestDifferent || IsRepeated(plain) || IsMostlyRows(plain))
            return "This repeats itself or follows the keyboard; it is tried early. Take words that have nothing to do with one another.";
        if (isCommon(plain) || isCommon(Core(plain)))
            return "Many people have this password, or nearly; it is tried early. Take another.";
        foreach (var name in names.Select(n => n.ToLowerInvariant()).Where(n => n.Length >= 3))
            if (plain.Contains(name, StringComparison.Ordinal) && plain.Length - name.Length < Shortest / 2)
                return "This is little more than a name that others know. Take another.";
        return null;
    }

    /// <summary>Whether it is text at all: half of a surrogate pair is none.</summary>
    private static bool IsText(string password)
    {
        for (var i = 0; i < password.Length; i++)
            if (char.IsSurrogate(password[i]))
            {
                if (!char.IsSurrogatePair(password, i))
                    return false;
                i++;
            }
        return true;
    }

    /// <summary>Without the digits and signs that people put around a word.</summary>
    private static string Core(string plain)
    {
        var letters = (From: 0, To: plain.Length);
        while (letters.From < letters.To && !char.IsLetter(plain[letters.From]))
            letters.From++;
        while (letters.To > letters.From && !char.IsLetter(plain[letters.To - 1]))
            letters.To--;
        return plain[letters.From..letters.To];
    }

    /// <summary>Whether it is one piece again and again.</summary>
    private static bool IsRepeated(string plain) => (plain + plain).IndexOf(plain, 1, StringComparison.Ordinal) < plain.Length;

    /// <summary>Whether fewer than a third of its characters do not continue a row.</summary>
    private static bool IsMostlyRows(string plain)
    {
        var next = 0;
        for (var i = 1; i < plain.Length; i++)
        {
            var pair = plain.Substring(i - 1, 2);
            var back = $"{pair[1]}{pair[0]}";
            if (Rows.Any(r => r.Contains(pair, StringComparison.Ordinal) || r.Contains(back, StringComparison.Ordinal)))
                next++;
        }
        return next * 3 > plain.Length * 2;
    }
}
