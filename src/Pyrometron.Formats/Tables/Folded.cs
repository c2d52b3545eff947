using System.Text;

namespace Pyrometron.Formats.Tables;

/// <summary>Words as people write them, brought to one form: small Latin letters and digits, single spaces.</summary>
internal static class Folded
{
    private const string Marked = "àáâãäåāăąçćčďđèéêëēėęěğìíîïīıłľĺñńňòóôõöøōőřśšşșťţțùúûüūůűýÿžźż",
        Plain = "aaaaaaaaacccddeeeeeeeegiiiiiilllnnnoooooooorsssstttuuuuuuuyyzzz";

    /// <summary>Folds a text.</summary>
    public static string Of(string text)
    {
        var folded = new StringBuilder(text.Length);
        var gap = false;
        for (var i = 0; i < text.Length; i++)
        {
            var c = char.ToLowerInvariant(text[i]);
            // Words run together: "warrantyUntil" is two.
            if (char.IsUpper(text[i]) && i > 0 && char.IsLower(text[i - 1]))
                gap = true;
            var letter = c switch
            {
                'ß' => "ss",
                'æ' => "ae",
                'œ' => "oe",
                _ when c is (>= 'a' and <= 'z') or (>= '0' and <= '9') => c.ToString(),
                _ when Marked.IndexOf(c, StringComparison.Ordinal) is >= 0 and var at => Plain[at].ToString(),
                _ when char.IsLetterOrDigit(c) => c.ToString(),
                _ => null,
            };
            if (letter is null)
            {
                gap = folded.Length > 0;
                continue;
            }
            if (gap && folded.Length > 0)
                folded.Append(' ');
            gap = false;
            folded.Append(letter);
        }
        return folded.ToString();
    }
}
