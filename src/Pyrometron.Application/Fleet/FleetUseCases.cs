using Pyrometron.Application.Bench;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Fleet;

/// <summary>Machines and their books: imported, edited, retired, set aside, served, reported.</summary>
public sealed class FleetUseCases(Database database, TimeProvider clock)
{
    private DateTimeOffset Now => clock.GetUtcNow();

    /// <summary>Takes a whole fleet document, or nothing of it. Sending the same one again changes nothing.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more; nothing of it is stored.</exception>
    public FleetChange Import(Actor actor, Register register, CancellationToken cancellation = default) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepMachines),
            Now,
            t =>
            {
                var change = FleetStore.Import(t, register, ImportStore.Begin(t, ImportKind.Fleet), cancellation);
                foreach (var field in change.Changes)
                    t.Log(Of(field));
                t.Log(
                    new Change(
                        "import",
                        Message.Of(
                            "Fleet document: {created} created, {updated} updated, {unchanged} unchanged",
                            Value.Count("created", change.Created),
                            Value.Count("updated", change.Updated),
                            Value.Count("unchanged", change.Unchanged)
                        )
                    )
                );
                return change;
            },
            cancellation
        );

    /// <summary>Edits a machine.</summary>
    /// <param name="edit">Gets the machine and the register; throws where the edit cannot be taken.</param>
    /// <exception cref="NotThereException">There is no such machine.</exception>
    public void Edit(Actor actor, string tag, Func<Asset, Register, Asset> edit) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var known = Find(t, tag);
                foreach (var field in FleetStore.Update(t, known, edit(known.Asset, FleetStore.Register(t))))
                    t.Log(Of(field));
            }
        );

    /// <summary>Takes a machine out of use, or with a null day puts it back.</summary>
    /// <exception cref="NotPossibleException">A job is open on it.</exception>
    public void Retire(Actor actor, string tag, DateOnly? on, string? reason) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var known = Find(t, tag);
                if (on is not null && JobStore.Of(t, known.Id).Any(j => j.State == JobState.Open))
                    throw new NotPossibleException(
                        Message.Of("A job is open on '{asset}'; finish or give it up first.", Value.Text("asset", tag))
                    );
                t.Log(Of(FleetStore.Retire(t, known, on, reason)));
            }
        );

    /// <summary>Sets a machine aside until a day.</summary>
    public void SetAside(Actor actor, string tag, string reason, DateOnly until) =>
        database.Write(
            actor.Allowed(Right.Plan),
            Now,
            t =>
            {
                var known = Find(t, tag);
                SetAsideStore.Put(t, known.Id, reason, until);
                t.Log(
                    new Change(
                        "set-aside",
                        Message.Of("Set aside until {until}: {reason}", Value.Day("until", until), Value.Text("reason", reason))
                    )
                    {
                        Asset = known.Id,
                        After = reason,
                    }
                );
            }
        );

    /// <summary>Puts a machine back into the queue.</summary>
    public void TakeBack(Actor actor, string tag) =>
        database.Write(
            actor.Allowed(Right.Plan),
            Now,
            t =>
            {
                if (FleetStore.Find(t, tag) is { } known && SetAsideStore.TakeBack(t, t.Reach(known).Id))
                    t.Log(new Change("set-aside", "Back in the queue") { Asset = known.Id });
            }
        );

    /// <summary>Adds a service by hand.</summary>
    public void AddService(Actor actor, string tag, ServiceDone service) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var known = Find(t, tag);
                if (ServiceStore.Add(t, known.Id, service))
                    t.Log(OfService(known.Id, service));
            }
        );

    /// <summary>Adds services of a file.</summary>
    /// <returns>How many were new; the rest was known already.</returns>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more; nothing of it is stored.</exception>
    public int AddServices(
        Actor actor,
        IReadOnlyList<(string Tag, ServiceDone Service)> services,
        CancellationToken cancellation = default
    ) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepMachines),
            Now,
            t =>
            {
                var known = FleetStore.All(t).ToDictionary(a => a.Asset.Tag, a => a.Id);
                var import = ImportStore.Begin(t, ImportKind.Services);
                var (added, touched) = (0, new HashSet<long>());
                foreach (var (tag, service) in services)
                {
                    cancellation.ThrowIfCancellationRequested();
                    if (!ServiceStore.Add(t, known[tag], service, import))
                        continue;
                    t.Log(OfService(known[tag], service));
                    touched.Add(known[tag]);
                    added++;
                }
                ImportStore.Add(t, import, added, 0, touched);
                return added;
            },
            cancellation
        );

    /// <summary>Strikes a service out, or with a null reason takes that back.</summary>
    /// <exception cref="NotThereException">The machine has no such service.</exception>
    public void VoidService(Actor actor, string tag, long id, string? reason) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var known = Find(t, tag);
                var service =
                    ServiceStore.Find(t, known.Id, id)
                    ?? throw new NotThereException(
                        Message.Of("'{asset}' has no service {service}.", Value.Text("asset", tag), Value.Count("service", id))
                    );
                ServiceStore.Void(t, id, reason);
                var (level, day) = (Value.Word("level", service.Level), Value.Day("day", service.Date));
                t.Log(
                    new Change(
                        "service",
                        reason is null
                            ? Message.Of("Service restored: {level} of {day}", level, day)
                            : Message.Of(
                                "Service struck out: {level} of {day} ({reason})",
                                level,
                                day,
                                Value.Text("reason", reason)
                            )
                    )
                    {
                        Asset = known.Id,
                    }
                );
            }
        );

    /// <summary>Takes a report.</summary>
    public void Report(Actor actor, string tag, Symptom symptom) =>
        database.Write(
            actor.Allowed(Right.Work),
            Now,
            t =>
            {
                var known = Find(t, tag);
                SymptomStore.Add(t, known.Id, symptom);
                var kind = Value.Word("kind", symptom.Kind);
                t.Log(
                    new Change(
                        "report",
                        symptom.Note is null
                            ? Message.Of("Reported: {kind}", kind)
                            : Message.Of("Reported: {kind}, {note}", kind, Value.Text("note", symptom.Note))
                    )
                    {
                        Asset = known.Id,
                    }
                );
            }
        );

    /// <summary>Withdraws a report.</summary>
    /// <exception cref="NotThereException">The machine has no such report that stands.</exception>
    public void WithdrawReport(Actor actor, string tag, long id, string reason) =>
        database.Write(
            actor.Allowed(Right.Work),
            Now,
            t =>
            {
                var known = Find(t, tag);
                if (!SymptomStore.Withdraw(t, known.Id, id, reason))
                    throw new NotThereException(
                        Message.Of(
                            "'{asset}' has no report {report} that stands.",
                            Value.Text("asset", tag),
                            Value.Count("report", id)
                        )
                    );
                t.Log(
                    new Change("report", Message.Of("Report withdrawn: {reason}", Value.Text("reason", reason)))
                    {
                        Asset = known.Id,
                    }
                );
            }
        );

    /// <exception cref="NotThereException">There is no such machine.</exception>
    /// <exception cref="NotAllowedException">It stands where the actor may change nothing.</exception>
    internal static StoredAsset Find(Transaction t, string tag) => t.Reach(FleetStore.Find(t, tag) ?? throw Missing.Machine(tag));

    private static Change Of(MachineChange c) =>
        new("change", ChangeWords.OfField(c.Field, c.Before, c.After))
        {
            Asset = c.AssetId,
            Before = c.Before,
            After = c.After,
        };

    private static Change OfService(long asset, ServiceDone service) =>
        new("service", Message.Of("Service: {level}", Value.Word("level", service.Level)))
        {
            Asset = asset,
            At = new DateTimeOffset(service.Date.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero),
        };
}
