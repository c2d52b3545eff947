using System.Globalization;
using System.Text;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Access;

/// <summary>Somebody who may sign in.</summary>
/// <param name="Code">By which they sign in, and which tells them from others: see <see cref="AccountNames"/>.</param>
/// <param name="Name">As it is shown; no two of a house read alike.</param>
/// <param name="Sites">Codes of the sites where they may change something; empty for all.</param>
/// <param name="Machines">For an owner: the tags of theirs; else empty.</param>
/// <param name="Suspended">Whether they may not sign in for the time being.</param>
public sealed record Account(
    long Id,
    string Code,
    string Name,
    Role Role,
    IReadOnlyList<string> Sites,
    IReadOnlyList<string> Machines,
    bool Suspended
)
{
    /// <summary>What they may, and where.</summary>
    public Rights Rights => Suspended ? Rights.None : Rights.Of(Role, Sites);

    /// <summary>They as those who change something.</summary>
    public Actor Actor => new(ActorKind.Person, Name) { Rights = Rights };
}

/// <summary>What names of accounts may be.</summary>
public static class AccountNames
{
    private const int LongestCode = 40,
        LongestName = 80;

    /// <summary>
    /// Why a code cannot be one, or null. It is typed to sign in and stands beside the name where two could be mistaken for one
    /// another: plain letters without accents, which look like no others.
    /// </summary>
    public static Message? RefuseCode(string? code) =>
        code is { Length: > 0 and <= LongestCode }
        && char.IsAsciiLetter(code[0])
        && code.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c is '-' or '.')
            ? null
            : Message.Of(
                "A sign-in name is a small letter, then small letters a to z, digits, dots and hyphens: {most} at most.",
                Value.Count("most", LongestCode)
            );

    /// <summary>
    /// Why a name cannot be one, or null. Any script is welcome; what turns the reading direction or cannot be seen is not, since
    /// with it one name can be made to look like another.
    /// </summary>
    public static Message? RefuseName(string? name)
    {
        if (name is null || name.Trim().Length is 0 or > LongestName)
            return Message.Of("A name is needed: {most} characters at most.", Value.Count("most", LongestName));
        if (!name.EnumerateRunes().All(IsSeen))
            return "A name is one line of letters that can be seen; take out what is hidden in it.";
        return HasLooseMark(name)
            ? "An accent in this name is written apart from its letter, so that it could pass for another name. Type the letter with its accent as one."
            : null;
    }

    /// <summary>What two names have in common that read alike: case, full width and spaces do not tell them apart.</summary>
    public static string Alike(string name) =>
        string.Join(
                ' ',
                name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Select(w => string.Concat(w.Select(Narrow)))
            )
            .ToUpperInvariant();

    /// <summary>The full-width forms of ASCII stand at one distance from it (Unicode, block FF00).</summary>
    private static char Narrow(char c) => c is >= '\uFF01' and <= '\uFF5E' ? (char)(c - 0xFEE0) : c;

    /// <summary>Whether a plain letter is followed by an accent of its own (Unicode, block 0300).</summary>
    private static bool HasLooseMark(string name) =>
        name.Zip(name.Skip(1)).Any(pair => char.IsAsciiLetter(pair.First) && pair.Second is >= '\u0300' and <= '\u036F');

    private static bool IsSeen(Rune rune) =>
        Rune.GetUnicodeCategory(rune)
            is not (
                UnicodeCategory.Control
                or UnicodeCategory.Format
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
                or UnicodeCategory.PrivateUse
                or UnicodeCategory.OtherNotAssigned
            )
        // Joiners belong to the spelling of some scripts.
        || rune.Value is 0x200C or 0x200D;
}
