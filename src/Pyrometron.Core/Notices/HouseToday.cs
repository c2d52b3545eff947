using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Stores;

namespace Pyrometron.Core.Notices;

/// <summary>A job that is not closed.</summary>
/// <param name="Since">The day of its last entry; where it waits for its after-run, the day on which the work was done.</param>
public sealed record JobInHand(long Id, string Tag, string Zone, ServiceLevel Level, JobState State, DateOnly Since);

/// <summary>What a house is like on a day, as far as notices go.</summary>
/// <param name="Machines">As judged, without those that are set aside.</param>
/// <param name="WarmRooms">Zones whose room is to be seen to before any machine.</param>
/// <param name="Jobs">Those that are not closed.</param>
/// <param name="Supply">Who gets what from the shelf.</param>
/// <param name="ZoneNames">Names of zones by code.</param>
public sealed record HouseToday(
    DateOnly Day,
    IReadOnlyList<Assessment> Machines,
    IReadOnlyList<GroupEvent> Events,
    IReadOnlyList<ZoneAssessment> WarmRooms,
    IReadOnlyList<JobInHand> Jobs,
    IReadOnlyList<JobSupply> Supply,
    IReadOnlyDictionary<string, string> ZoneNames
);
