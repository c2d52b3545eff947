namespace Pyrometron.Core.Notices;

/// <summary>A condition as it was met first, and how it went on.</summary>
/// <param name="Id">Its number.</param>
/// <param name="First">The day on which it was met first.</param>
/// <param name="Gone">The day on which it was not so any more; null while it is.</param>
/// <param name="IsNews">
/// False for what was so when the house began to be watched, and for what follows from something worse.
/// </param>
/// <param name="MadeAt">When it was noticed.</param>
public sealed record Notice(long Id, Condition Condition, DateOnly First, DateOnly? Gone, bool IsNews, DateTimeOffset MadeAt);

/// <summary>What a day changes in the ledger.</summary>
/// <param name="New">Met for the first time, or again after long: a notice each.</param>
/// <param name="Back">Numbers of notices that are so again, too soon to be told twice.</param>
/// <param name="Gone">Numbers of notices that are not so any more.</param>
public sealed record LedgerChange(IReadOnlyList<Condition> New, IReadOnlyList<long> Back, IReadOnlyList<long> Gone);

/// <summary>Holds what is so today against what was noticed before, so that nothing is told twice.</summary>
public static class NoticeLedger
{
    /// <summary>Days for which something may be gone and still be the same thing: a value that swings about its line.</summary>
    public const int SwingDays = 14;

    /// <summary>What a day changes.</summary>
    /// <param name="known">All notices; the newest of a key counts.</param>
    /// <param name="today">What is so; no key twice.</param>
    public static LedgerChange On(DateOnly day, IEnumerable<Notice> known, IReadOnlyList<Condition> today)
    {
        var newest = known.GroupBy(n => n.Condition.Key).ToDictionary(g => g.Key, g => g.MaxBy(n => n.Id)!);
        var (fresh, back) = (new List<Condition>(), new List<long>());
        foreach (var condition in today)
            if (!newest.Remove(condition.Key, out var notice) || notice.Gone?.AddDays(SwingDays) < day)
                fresh.Add(condition);
            else if (notice.Gone is not null)
                back.Add(notice.Id);
        return new LedgerChange(fresh, back, [.. newest.Values.Where(n => n.Gone is null).Select(n => n.Id).Order()]);
    }
}
