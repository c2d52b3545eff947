using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>A product with what is on the shelf of it.</summary>
/// <param name="Unit">In which its amounts are: g, ml, sheet or piece.</param>
/// <param name="Usable">What may be used: not expired, not bad.</param>
/// <param name="Reserved">What jobs ahead have spoken for.</param>
/// <param name="IsLow">Whether less is usable than its line.</param>
public sealed record ProductAnswer(
    string Code,
    ProductKind Kind,
    string Name,
    string Unit,
    ProductFacts Facts,
    Pack Pack,
    IReadOnlyList<string> Fits,
    double? LowAt,
    double Usable,
    double Reserved,
    bool IsLow
);

/// <summary>A lot.</summary>
/// <param name="LastDay">The last day on which it may be used; null where nothing is known to age it.</param>
/// <param name="Reserved">What jobs ahead have spoken for.</param>
public sealed record LotAnswer(
    long Id,
    string Product,
    string ProductName,
    ProductKind Kind,
    string Unit,
    double? ThicknessMm,
    string? Batch,
    string Place,
    DateOnly CameOn,
    DateOnly? OpenedOn,
    DateOnly? ExpiresOn,
    DateOnly? LastDay,
    bool Expired,
    double? PricePerUnit,
    double? WidthMm,
    double? HeightMm,
    string? BadBecause,
    double Amount,
    double Reserved
);

/// <summary>What a job takes from a lot.</summary>
/// <param name="Pieces">Of pads, how many it needs in all.</param>
public sealed record TakeAnswer(
    ProductKind Kind,
    long Lot,
    string Product,
    string Place,
    string? Batch,
    double Amount,
    string Unit,
    double? ThicknessMm,
    int? Pieces
);

/// <summary>What a job lacks.</summary>
/// <param name="Amount">Of pads how many pieces.</param>
public sealed record MissingAnswer(ProductKind Kind, double Amount, string Unit, double? ThicknessMm);

/// <summary>Pads that lie ready.</summary>
public sealed record ReadyPads(double ThicknessMm, int Count);

/// <summary>A job that will take from the shelf.</summary>
/// <param name="Takes">What is spoken for; empty where something is missing: then it waits and takes nothing.</param>
/// <param name="Unknown">Whether nobody noted which pads its model takes.</param>
public sealed record JobAheadAnswer(
    string Asset,
    string Model,
    ServiceLevel Level,
    AheadBy By,
    DateOnly? Day,
    DateOnly? DueBy,
    long? Job,
    IReadOnlyList<TakeAnswer> Takes,
    IReadOnlyList<MissingAnswer> Missing,
    IReadOnlyList<ReadyPads> Ready,
    bool Unknown
);

/// <summary>The stores.</summary>
/// <param name="Jobs">Jobs ahead that were looked at.</param>
/// <param name="Served">Those for which all is there.</param>
/// <param name="CountedAt">When somebody last counted anything; null where nobody has.</param>
/// <param name="ReadyFor">Machines for which pads lie ready, whether their job is among those looked at or not.</param>
public sealed record StoresAnswer(
    DateOnly Today,
    string Currency,
    int Jobs,
    int Served,
    DateTimeOffset? CountedAt,
    string? CountedBy,
    IReadOnlyList<ProductAnswer> Products,
    IReadOnlyList<LotAnswer> Lots,
    IReadOnlyList<JobAheadAnswer> Ahead,
    IReadOnlyList<string> ReadyFor
);

/// <summary>A move of a lot.</summary>
public sealed record MoveAnswer(StockMoveKind Kind, double Amount, DateTimeOffset At, long? Job, string By, string? Note);

/// <summary>A lot with its past.</summary>
/// <param name="Users">Jobs that it, or another lot of the same batch, went into.</param>
public sealed record LotPageAnswer(LotAnswer Lot, IReadOnlyList<MoveAnswer> Moves, IReadOnlyList<LotUser> Users);

/// <summary>Packs to buy.</summary>
public sealed record PacksAnswer(string Product, string Name, int Packs, double PackAmount, string Unit, double? Cost);

/// <summary>Something to buy.</summary>
/// <param name="Missing">In the unit; of pads how many pieces.</param>
/// <param name="OrderBy">The last day on which it is ordered in time.</param>
/// <param name="Late">Whether that day has passed.</param>
public sealed record ShoppingLineAnswer(
    ProductKind Kind,
    double? ThicknessMm,
    string? Model,
    double Missing,
    string Unit,
    IReadOnlyList<PacksAnswer> Buy,
    double? Cost,
    DateOnly? NeededOn,
    DateOnly? OrderBy,
    bool Late,
    IReadOnlyList<string> For,
    IReadOnlyList<Message> Notes
);

/// <summary>What to buy.</summary>
/// <param name="Jobs">For so many jobs ahead.</param>
/// <param name="Cost">Of all lines whose price is known.</param>
/// <param name="Unpriced">Lines without a price, or without a product.</param>
public sealed record ShoppingAnswer(
    int Jobs,
    string Currency,
    double Cost,
    int Unpriced,
    IReadOnlyList<ShoppingLineAnswer> Lines
);

/// <summary>What a job needs from the shelf.</summary>
/// <param name="Lots">What may be chosen at the steps, the one in use first; expired ones last.</param>
public sealed record JobStoresAnswer(JobAheadAnswer Job, IReadOnlyList<LotAnswer> Lots);

/// <summary>What a job used of a product.</summary>
/// <param name="Cost">Null where its price is not known.</param>
public sealed record UsedAnswer(string Product, double Amount, double? Cost);

/// <summary>What a job cost, in the house's currency.</summary>
/// <param name="Material">By the prices of the lots it used, else by what such work usually uses.</param>
/// <param name="MaterialKnown">Whether all of it has a price.</param>
/// <param name="Minutes">As booked.</param>
/// <param name="Downtime">What the machine did not do meanwhile.</param>
public sealed record JobCostAnswer(
    string Currency,
    double Material,
    bool MaterialKnown,
    double Minutes,
    double Work,
    double Downtime,
    double All,
    IReadOnlyList<UsedAnswer> Used
);
