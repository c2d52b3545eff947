using Pyrometron.Core.Fleet;
using Pyrometron.Core.Weeks;
using Pyrometron.Formats.Calendars;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Planning;

/// <summary>
/// The plan in force as entries of calendars, and what earlier plans held that it does not hold any more: calendars take that out
/// where they are told that it is cancelled.
/// </summary>
internal sealed class PlannedVisits(PlanStore plans, House house, DateTimeOffset now)
{
    private readonly StoredPlan? _plan = plans.Newest();
    private readonly Places _places = Places.Of(house.Sites);
    private readonly Dictionary<string, string> _clocks = house
        .Sites.SelectMany(s => s.Zones, (s, z) => (z.Code, house.ClockOf(s).Id))
        .ToDictionary();

    /// <summary>Somebody's part: what is another's now is cancelled in theirs.</summary>
    public IReadOnlyCollection<CalendarVisit> Of(Person person) =>
        Entries(
            p => p.Has(person.Code),
            p => $"{p.Work.Id}-{person.Code}",
            p => p.Helper is not { } helper ? "" : $"With {NameOf(p.Person == person.Code ? helper : p.Person)}. "
        );

    /// <summary>All of a zone, or of the house where it is null, with who does it.</summary>
    public IReadOnlyCollection<CalendarVisit> In(string? zone) =>
        Entries(
            p => zone is null || p.Work.Zone == zone,
            p => $"{p.Work.Id}-planned",
            p => p.Helper is { } helper ? $"{NameOf(p.Person)}, {NameOf(helper)}. " : $"{NameOf(p.Person)}. "
        );

    private IReadOnlyCollection<CalendarVisit> Entries(Func<Placed, bool> isIn, Func<Placed, string> id, Func<Placed, string> who)
    {
        if (_plan is null)
            return [];
        var held = _plan.Placed.Where(isIn).ToList();
        var ids = held.Select(id).ToHashSet();
        var gone = plans.Earlier(now).Where(p => isIn(p) && !ids.Contains(id(p))).DistinctBy(id);
        return [.. held.Select(p => Entry(p, false)), .. gone.Select(p => Entry(p, true))];

        CalendarVisit Entry(Placed placed, bool cancelled) =>
            new(
                id(placed),
                placed.Start,
                TimeSpan.FromMinutes(placed.Work.Minutes),
                _clocks.GetValueOrDefault(placed.Work.Zone, house.TimeZone.Id),
                Title(placed.Work),
                who(placed) + (placed.Work.DueBy is { } due ? FormattableString.Invariant($"Due by {due:yyyy-MM-dd}.") : ""),
                _places.ZoneName(placed.Work.Zone),
                (int)_plan.Id,
                cancelled
            );
    }

    private string NameOf(string code) => house.People.FirstOrDefault(p => p.Code == code)?.Name ?? code;

    private static string Title(Wanted work) =>
        work.Kind switch
        {
            WantedKind.Visit => work.Title,
            WantedKind.Service => string.Join(", ", work.Steps.Select(s => $"{s.Tag}: {Words.Of(s.Level!.Value)}")),
            _ => $"{work.Steps[0].Tag}: {Words.Of(work.Kind).Replace('-', ' ')}",
        };
}
