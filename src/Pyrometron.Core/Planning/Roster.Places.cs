namespace Pyrometron.Core.Planning;

// Where a job can be put, and what moves to make room for it.
public sealed partial class Roster
{
    /// <summary>Spans of a zone that are looked through without asking for memory.</summary>
    private const int MostOnStack = 128;

    /// <summary>
    /// The places of a job in a shift: before, between and after what is done in it, what follows being moved on where that is
    /// needed and may be.
    /// </summary>
    /// <param name="index">The job; has no place yet.</param>
    /// <param name="opening">One of its openings.</param>
    /// <param name="found">Where the places are put.</param>
    /// <param name="crowding">Whether the limit of machines down at once is looked at.</param>
    /// <param name="mostSetup">Places with more minutes of set-up than this are not looked at.</param>
    public void Places(int index, Opening opening, List<Place> found, bool crowding = true, int mostSetup = int.MaxValue)
    {
        found.Clear();
        var slot = Openings.Slot(opening.Person, opening.Shift);
        var (done, zone) = (_shifts[slot], Openings.Zone(index));
        if (Idle(slot) < Openings.Minutes(index))
            return;
        if (Problem.Jobs[index].TakesTwo)
        {
            PlacesForTwo(index, opening, found, crowding);
            return;
        }
        for (var at = 0; at <= done.Count; at++)
        {
            var setup = MoreSetup(zone, done, at);
            if (setup <= mostSetup && Moved(index, opening, at, null, crowding) is { } start)
                found.Add(new Place(at, start, setup));
        }
    }

    /// <summary>
    /// The earliest place of a job that takes two with each who could help. Nothing that stands is moved for it, nor it for
    /// others: what is moved in one shift would have to be in the other.
    /// </summary>
    private void PlacesForTwo(int index, Opening opening, List<Place> found, bool crowding)
    {
        foreach (var other in Openings.Helping(index))
        {
            if (other.Person == opening.Person)
                continue;
            var from = 0;
            while (
                Free(index, opening, from, crowding) is { } own && Free(index, other, own.Start, crowding: false) is { } helping
            )
            {
                if (own.Start == helping.Start)
                {
                    found.Add(new Place(own.At, own.Start, own.Setup + helping.Setup, other.Person));
                    break;
                }
                from = helping.Start;
            }
        }
    }

    /// <summary>The first place from a minute on in which a job fits between what is done in a shift, as it stands.</summary>
    private Place? Free(int index, Opening opening, int from, bool crowding)
    {
        var slot = Openings.Slot(opening.Person, opening.Shift);
        var (done, zone) = (_shifts[slot], Openings.Zone(index));
        for (var at = 0; at <= done.Count; at++)
        {
            var free = at == 0 ? Openings.SpanOf(slot).From : SpanOf(done[at - 1]).To;
            if (Earliest(index, opening, Math.Max(from, free + SetupOf(zone, done, at)), crowding) is not { } start)
                continue;
            if (at == done.Count || start + Openings.Minutes(index) + NextSetup(zone, done[at]) <= done[at].Start)
                return new Place(at, start, MoreSetup(zone, done, at));
        }
        return null;
    }

    /// <summary>The minutes of set-up that a job in a place of a shift adds.</summary>
    private int MoreSetup(int zone, List<Assignment> done, int at) =>
        SetupOf(zone, done, at) + (at < done.Count ? NextSetup(zone, done[at]) - SetupAt(done, at) : 0);

    /// <summary>Puts a job into a place that was found for it just now.</summary>
    public void Put(int index, Opening opening, Place place)
    {
        var moved = new List<Assignment>();
        var stands = place.Helper is { } helper
            ? TryPut(new Assignment(index, opening.Person, place.Start, helper))
            : Moved(index, opening, place.At, moved, crowding: true) is not null;
        if (!stands)
            throw new InvalidOperationException("The plan has changed since the place was found.");
        if (moved.Count == 0)
            return;
        var slot = Openings.Slot(opening.Person, opening.Shift);
        Changing(slot).Insert(place.At, moved[0]);
        ChangingDown(ZoneOf(moved[0])).Add((SpanOf(moved[0]), opening.Person));
        _person[index] = opening.Person;
        for (var i = 1; i < moved.Count; i++)
            Move(slot, place.At + i, moved[i]);
    }

    /// <summary>
    /// When a job would begin in a place; null where it, or one that has to make room for it, has none.
    /// </summary>
    /// <param name="moved">Where the job and those that move are put, in order.</param>
    private int? Moved(int index, Opening opening, int at, List<Assignment>? moved, bool crowding)
    {
        var slot = Openings.Slot(opening.Person, opening.Shift);
        var (done, zone) = (_shifts[slot], Openings.Zone(index));
        var free = at == 0 ? Openings.SpanOf(slot).From : SpanOf(done[at - 1]).To;
        var own = SetupOf(zone, done, at);
        if (Earliest(index, opening, free + own, crowding) is not { } first)
            return null;
        moved?.Add(new Assignment(index, opening.Person, first));
        free = first + Openings.Minutes(index);
        for (var i = at; i < done.Count; i++)
        {
            var needed = free + (i == at ? NextSetup(zone, done[i]) : SetupAt(done, i));
            if (needed <= done[i].Start)
                break;
            if (
                Stays(done[i].Job)
                || Openings.At(done[i].Job, opening.Person, opening.Shift) is not { } other
                || Earliest(done[i].Job, other, needed, crowding) is not { } start
            )
                return null;
            moved?.Add(done[i] with { Start = start });
            free = start + Openings.Minutes(done[i].Job);
        }
        return first;
    }

    /// <summary>Whether a job is not moved to make room: somebody put it there, or two meet for it.</summary>
    private bool Stays(int job) => Problem.Jobs[job] is { Locked: not null } or { TakesTwo: true };

    /// <summary>The first minute from this one on at which a job may begin in a shift; null where there is none.</summary>
    private int? Earliest(int index, Opening opening, int from, bool crowding)
    {
        var most = crowding ? Problem.Zones[Openings.Zone(index)].MaxDown : null;
        foreach (var (first, last) in opening.Starts)
        {
            var start = Math.Max(first, from);
            if (most is { } limit && start <= last)
                start = Uncrowded(index, limit, start, last, opening.Person);
            if (start <= last)
                return start;
        }
        return null;
    }

    /// <summary>
    /// The first minute from this one on at which a job may begin without crowding its zone; one after the last where there is
    /// none to the last.
    /// </summary>
    private int Uncrowded(int index, int most, int start, int last, int person)
    {
        var minutes = Openings.Minutes(index);
        var down = _down[Openings.Zone(index)];
        Span<Span> near = down.Count <= MostOnStack ? stackalloc Span[down.Count] : new Span[down.Count];
        var count = 0;
        foreach (var (span, who) in down)
            if (who != person && start < span.To && span.From < last + minutes)
                near[count++] = span;
        near = near[..count];
        while (start <= last && MostAtOnce(near, new Span(start, start + minutes)) >= most)
        {
            // Where none may be down at all, no end of another job helps.
            var next = last + 1;
            foreach (var span in near)
                if (span.To > start)
                    next = Math.Min(next, span.To);
            start = next;
        }
        return start;
    }

    /// <summary>How many of some spans overlap at once within another one.</summary>
    private static int MostAtOnce(ReadOnlySpan<Span> spans, Span within)
    {
        var most = 0;
        foreach (var one in spans)
        {
            if (!one.Overlaps(within))
                continue;
            var at = Math.Max(one.From, within.From);
            var count = 0;
            foreach (var other in spans)
                count += other.From <= at && at < other.To ? 1 : 0;
            most = Math.Max(most, count);
        }
        return most;
    }
}
