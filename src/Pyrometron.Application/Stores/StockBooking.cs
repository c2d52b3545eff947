using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Stores;
using Pyrometron.Storage;

namespace Pyrometron.Application.Stores;

/// <summary>What a job takes off the shelf: nothing until it is filed; what is noted later moves the difference.</summary>
internal static class StockBooking
{
    private const double Rounding = 1e-6;

    /// <summary>Why a product may not be noted as it was sent, or null.</summary>
    public static Message? Refuses(Transaction t, JobEntry entry)
    {
        if (entry is not ProductUsed { Lot: { } id } used)
            return null;
        if (LotStore.Find(t, id) is not { } lot)
            return $"The stores have no lot {id}. Choose one that is there, or write the name alone.";
        var product = ProductStore.All(t).First(p => p.Code == lot.Product);
        if (product.Kind != used.Product)
            return $"Lot {id} is {product.Name}, which is {product.Kind} and not {used.Product}. Choose another lot.";
        if (lot.BadBecause is { } bad)
            return $"Lot {id} is not to be used any more: {bad}. Choose another lot.";
        if (lot.IsExpired(product, Today(t)) && string.IsNullOrWhiteSpace(used.ExpiredBecause))
            return $"Lot {id} expired on {lot.LastDay(product)!.Value}. Take another one, or write down why it is used all the same.";
        return null;
    }

    /// <summary>Books what a filed job used; an entry that changes it moves the difference.</summary>
    public static void Follow(Transaction t, StoredJob row, Job job, JobEntry entry)
    {
        if (job.WorkDoneAt is null || entry is not (WorkFiled or MaterialUsed or ProductUsed))
            return;
        var shelf = LotStore.Shelf(t, Today(t), without: row.Id);
        if (shelf.Lots.Count == 0)
            return;
        var needs = WorkNeeds.Of(job.Basis, row.Model, new UsedSoFar(JobStore.MaterialsUsed(t)));
        var bookings = JobBookings.Of(job, row.Model, shelf, needs);
        var booked = LotStore.Booked(t, row.Id);
        var amounts = shelf.Lots.ToDictionary(l => l.Id, l => l.Amount);
        var wanted = bookings.Lots.ToDictionary(b => b.Lot);
        foreach (var lot in wanted.Keys.Union(booked.Keys).Order().ToList())
        {
            var asked = wanted.TryGetValue(lot, out var of) ? of.Amount : 0;
            // Whatever the book says, no more can have been used than was there.
            var used = Math.Min(asked, Math.Max(0, amounts[lot]));
            var more = used - booked.GetValueOrDefault(lot);
            if (Math.Abs(more) > Rounding)
                LotStore.Move(t, lot, StockMoveKind.Used, -more, row.Id, Note(of, asked - used));
        }
        foreach (var thickness in bookings.CutPads.Keys)
            LotStore.UseReady(t, row.AssetId, thickness, row.Id);
    }

    private static string? Note(Booking? booking, double beyond) =>
        beyond > Rounding ? StockMove.MoreThanThere
        : booking is { Estimated: true } ? StockMove.UsualAmount
        : null;

    private static DateOnly Today(Transaction t) => DateOnly.FromDateTime(t.Now.UtcDateTime);
}
