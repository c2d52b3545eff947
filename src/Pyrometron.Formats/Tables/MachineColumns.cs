namespace Pyrometron.Formats.Tables;

/// <summary>What a column of a table was taken for.</summary>
/// <param name="Guessed">Whether nobody has settled it.</param>
public sealed record TableColumn(string Header, MachineField Field, bool Guessed);

/// <summary>
/// Which column of a table holds what: by what somebody settled, else by its header, else by its cells. Each field stands in one
/// column.
/// </summary>
internal static class MachineColumns
{
    /// <summary>So many of a column's filled cells have to read as what its header says.</summary>
    private const double LeastFitting = 0.5;

    /// <summary>Matches the columns.</summary>
    /// <param name="rows">The first rows; empty cells do not count.</param>
    /// <param name="settled">Field of a folded header, as somebody said now or before.</param>
    public static TableColumn[] Match(
        IReadOnlyList<string> headers,
        IReadOnlyList<string[]> rows,
        IReadOnlyDictionary<string, MachineField> settled
    )
    {
        var found = new MachineField?[headers.Count];
        var taken = new HashSet<MachineField>();
        for (var c = 0; c < headers.Count; c++)
            if (settled.TryGetValue(KeyOf(headers[c]), out var field) && (field == MachineField.Ignore || taken.Add(field)))
                found[c] = field;
        var isSettled = found.Select(f => f is not null).ToArray();
        string[] Cells(int c) => [.. rows.Select(r => c < r.Length ? r[c].Trim() : "").Where(t => !IsEmpty(t))];
        var candidates = Enumerable
            .Range(0, headers.Count)
            .Where(c => found[c] is null)
            .SelectMany(c => FieldWords.Of(headers[c]).Select(f => (Column: c, f.Field, f.Score)))
            .OrderByDescending(f => f.Score);
        foreach (var (column, field, score) in candidates)
            if (
                found[column] is null
                && !taken.Contains(field)
                // A header that is the field's own name needs no cells to bear it out.
                && (double.IsPositiveInfinity(score) || Fits(field, Cells(column)))
            )
            {
                found[column] = field;
                taken.Add(field);
            }
        for (var c = 0; c < headers.Count; c++)
            if (found[c] is null && ByCells(headers[c], c == 0, Cells(c), taken) is { } field)
            {
                found[c] = field;
                taken.Add(field);
            }
        return [.. headers.Select((h, c) => new TableColumn(h, found[c] ?? MachineField.Ignore, !isSettled[c]))];
    }

    /// <summary>What a header is remembered under.</summary>
    public static string KeyOf(string header) => Folded.Of(header);

    /// <summary>Whether a cell says nothing.</summary>
    public static bool IsEmpty(string cell) =>
        cell.Trim() is "" or "-" or "–" or "—" or "?" or "n/a" or "N/A" or "NA" or "none" or "null" or "keine" or "aucun";

    /// <summary>What cells alone tell, where the header does not: a list needs its tags and kinds.</summary>
    private static MachineField? ByCells(string header, bool isFirst, string[] cells, HashSet<MachineField> taken)
    {
        if (cells.Length == 0)
            return null;
        if (!taken.Contains(MachineField.Kind) && cells.Length >= 2 && Share(cells, c => CellWords.Kind(c) is not null) > 0.8)
            return MachineField.Kind;
        // A type that names no kinds is the model.
        if (!taken.Contains(MachineField.Model) && FieldWords.Of(header).Any(f => f.Field == MachineField.Kind))
            return MachineField.Model;
        return isFirst && !taken.Contains(MachineField.Tag) && IsUnique(cells) ? MachineField.Tag : null;
    }

    private static bool Fits(MachineField field, string[] cells)
    {
        if (cells.Length == 0)
            return true;
        Func<string, bool>? reads = field switch
        {
            MachineField.Kind => c => CellWords.Kind(c) is not null,
            MachineField.Dust => c => CellWords.Dust(c) is not null,
            MachineField.LastServiceLevel => c => CellWords.Level(c) is not null,
            MachineField.InServiceSince or MachineField.WarrantyUntil or MachineField.LastServiceDate => c =>
                DateColumn.Of([c], null).Read(c) is not null,
            MachineField.DesignAmbientCelsius
            or MachineField.AltitudeMetres
            or MachineField.DutyHoursPerDay
            or MachineField.LimitCelsius => c => CellNumber.Read(c, out _) is not null,
            _ => null,
        };
        return reads is null || Share(cells, reads) >= LeastFitting;
    }

    private static bool IsUnique(string[] cells) =>
        cells.Length >= 2 && cells.Distinct(StringComparer.Ordinal).Count() == cells.Length;

    private static double Share(string[] cells, Func<string, bool> holds) => (double)cells.Count(holds) / cells.Length;
}
