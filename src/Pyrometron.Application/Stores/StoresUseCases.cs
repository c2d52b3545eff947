using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Application.Stores;

/// <summary>What may be changed of a lot besides its amount.</summary>
/// <param name="BadBecause">Why it is not to be used any more; null where nothing is wrong with it.</param>
public sealed record LotFacts(
    string? Batch,
    string Place,
    DateOnly? OpenedOn,
    DateOnly? ExpiresOn,
    double? PricePerUnit,
    string? BadBecause
);

/// <summary>A plan of cuts that was carried out.</summary>
/// <param name="Sheets">How many whole sheets of each lot went.</param>
/// <param name="OffCuts">What is left of them: of which lot, and its size.</param>
/// <param name="Pads">What lies ready now.</param>
public sealed record CutDone(
    IReadOnlyDictionary<long, int> Sheets,
    IReadOnlyList<(long Lot, double WidthMm, double HeightMm)> OffCuts,
    IReadOnlyList<CutPads> Pads
);

/// <summary>What comes onto the shelf, is counted, thrown away and cut; every change is a move that stays.</summary>
public sealed class StoresUseCases(Database database, TimeProvider clock)
{
    /// <summary>More than a house keeps.</summary>
    public const int MostProducts = 500,
        MostLots = 5_000;

    /// <summary>The most that a lot may hold, in the unit of its product.</summary>
    public const double MostAmount = 100_000;

    private const double Rounding = 1e-6;

    /// <summary>Adds a product, or changes what is known of it.</summary>
    /// <exception cref="NotPossibleException">There are too many, or its lots are of another kind.</exception>
    public void Keep(Actor actor, Product product) =>
        Write(
            actor.Allowed(Right.KeepStores),
            t =>
            {
                var all = ProductStore.All(t);
                var known = all.FirstOrDefault(p => p.Code == product.Code);
                if (known is null && all.Count >= MostProducts)
                    throw new NotPossibleException($"{MostProducts} products are the most that the stores keep.");
                if (known is not null && known.Kind != product.Kind && LotStore.Any(t, product.Code))
                    throw new NotPossibleException(
                        $"'{known.Name}' has lots already, and their amounts are in its own unit: add another product instead."
                    );
                ProductStore.Keep(t, product);
                // What work costs follows from prices: then the rules are gone through again.
                var kind = known?.PricePerUnit == product.PricePerUnit ? "stores" : "prices";
                var after = Storage.Change.Told(product);
                if (known is null)
                    Log(t, $"Stores: {product.Name} is kept now", kind, after: after);
                else
                    Log(t, $"Stores: what is known of {product.Name} changed", kind, Storage.Change.Told(known), after);
            }
        );

    /// <summary>Takes a product off the list.</summary>
    /// <exception cref="NotThereException">There is none of that code.</exception>
    /// <exception cref="NotPossibleException">Lots of it tell what went into machines: they stay.</exception>
    public void Remove(Actor actor, string code) =>
        Write(
            actor.Allowed(Right.KeepStores),
            t =>
            {
                var product = Product(t, code);
                if (LotStore.Any(t, code))
                    throw new NotPossibleException(
                        $"'{product.Name}' has lots, which tell what went into machines. Throw them away instead; the product stays."
                    );
                ProductStore.Remove(t, code);
                Log(t, $"Stores: {product.Name} is kept no more", "prices");
            }
        );

    /// <summary>Puts a lot on the shelf.</summary>
    /// <param name="lot">Its amount is what came in.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="NotThereException">There is no such product.</exception>
    public long Add(Actor actor, Lot lot) =>
        Write(
            actor.Allowed(Right.KeepStores),
            t =>
            {
                var product = Product(t, lot.Product);
                if (LotStore.Shelf(t, Today(t)).Lots.Count >= MostLots)
                    throw new NotPossibleException($"{MostLots} lots are the most that the stores keep.");
                var id = LotStore.Add(t, lot);
                LotStore.Move(t, id, StockMoveKind.CameIn, lot.Amount);
                Log(t, $"Stores: {product.Name} came in, {lot.Amount} {Core.Stores.Product.UnitOf(product.Kind)}, lot {id}");
                return id;
            }
        );

    /// <summary>Changes what is known of a lot.</summary>
    /// <exception cref="NotThereException">There is no such lot.</exception>
    public void Change(Actor actor, long id, LotFacts facts) =>
        Write(
            actor.Allowed(Right.KeepStores),
            t =>
            {
                var lot = Find(t, id);
                LotStore.Change(
                    t,
                    lot with
                    {
                        Batch = facts.Batch,
                        Place = facts.Place,
                        OpenedOn = facts.OpenedOn,
                        ExpiresOn = facts.ExpiresOn,
                        PricePerUnit = facts.PricePerUnit,
                        BadBecause = facts.BadBecause,
                    }
                );
                var (before, after) = (Storage.Change.Told(Of(lot)), Storage.Change.Told(facts));
                if (facts.BadBecause is { } bad && lot.BadBecause is null)
                    Log(t, $"Stores: lot {id} is not to be used any more: {bad}", before: before, after: after);
                else
                    Log(t, $"Stores: what is known of lot {id} changed", before: before, after: after);
            }
        );

    /// <summary>Takes over what somebody counted.</summary>
    /// <exception cref="NotThereException">There is no such lot.</exception>
    public void Count(Actor actor, long id, double amount, string? note) =>
        Write(
            actor.Allowed(Right.Work),
            t =>
            {
                var lot = Find(t, id);
                LotStore.Move(t, id, StockMoveKind.Counted, amount - lot.Amount, note: note);
                Log(t, $"Stores: lot {id} counted, {amount} instead of {lot.Amount}");
            }
        );

    /// <summary>Throws a part of a lot away.</summary>
    /// <exception cref="NotThereException">There is no such lot.</exception>
    /// <exception cref="NotPossibleException">There is not so much of it.</exception>
    public void ThrowAway(Actor actor, long id, double amount, string reason) =>
        Write(
            actor.Allowed(Right.Work),
            t =>
            {
                var lot = Find(t, id);
                if (amount > lot.Amount + Rounding)
                    throw new NotPossibleException(
                        $"Lot {id} holds {lot.Amount}, and {amount} were to be thrown away. Count it first if there is more."
                    );
                LotStore.Move(t, id, StockMoveKind.ThrownAway, -Math.Min(amount, lot.Amount), note: reason);
                Log(t, $"Stores: {amount} of lot {id} thrown away: {reason}");
            }
        );

    /// <summary>Books a plan of cuts: sheets go, off-cuts come, pads lie ready.</summary>
    /// <exception cref="NotPossibleException">Its sheets are not there any more.</exception>
    public void Cut(Actor actor, CutDone done) =>
        Write(
            actor.Allowed(Right.Work),
            t =>
            {
                var lots = done.Sheets.Keys.ToDictionary(id => id, id => Find(t, id));
                foreach (var (id, sheets) in done.Sheets)
                {
                    if (lots[id].Amount < sheets - Rounding || lots[id].BadBecause is not null)
                        throw new NotPossibleException(
                            $"Lot {id} does not hold {sheets} sheets any more: somebody used it meanwhile. Plan the cuts again."
                        );
                    LotStore.Move(t, id, StockMoveKind.Cut, -sheets);
                }
                foreach (var alike in done.OffCuts.GroupBy(o => o))
                {
                    var (of, width, height) = (lots[alike.Key.Lot], alike.Key.WidthMm, alike.Key.HeightMm);
                    var id = LotStore.Add(
                        t,
                        of with
                        {
                            PricePerUnit = of.PricePerUnit * width * height / of.SheetMm2,
                            WidthMm = width,
                            HeightMm = height,
                        }
                    );
                    LotStore.Move(t, id, StockMoveKind.OffCut, alike.Count());
                }
                foreach (var pads in done.Pads)
                    LotStore.LayReady(t, pads);
                Log(
                    t,
                    $"Stores: {done.Pads.Sum(p => p.Count)} pads cut from {done.Sheets.Values.Sum()} sheets, {done.OffCuts.Count} off-cuts kept"
                );
            }
        );

    private static Product Product(Transaction t, string code) =>
        ProductStore.All(t).FirstOrDefault(p => p.Code == code)
        ?? throw new NotThereException($"The stores know no product '{code}'.");

    private static Lot Find(Transaction t, long id) =>
        LotStore.Find(t, id) ?? throw new NotThereException($"There is no lot {id}.");

    private static LotFacts Of(Lot lot) =>
        new(lot.Batch, lot.Place, lot.OpenedOn, lot.ExpiresOn, lot.PricePerUnit, lot.BadBecause);

    private static DateOnly Today(Transaction t) => DateOnly.FromDateTime(t.Now.UtcDateTime);

    private static void Log(Transaction t, Message says, string kind = "stores", string? before = null, string? after = null) =>
        t.Log(new Change(kind, says) { Before = before, After = after });

    private void Write(Actor actor, Action<Transaction> work) => database.Write(actor, clock.GetUtcNow(), work);

    private T Write<T>(Actor actor, Func<Transaction, T> work) => database.Write(actor, clock.GetUtcNow(), work);
}
