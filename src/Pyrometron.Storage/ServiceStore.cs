using Pyrometron.Core.Fleet;

namespace Pyrometron.Storage;

/// <summary>A service in a machine's book.</summary>
/// <param name="VoidedReason">Why it is struck through, or null.</param>
/// <param name="JobId">The job that did it, or null for an imported one.</param>
public sealed record StoredService(long Id, ServiceDone Service, DateTimeOffset? VoidedAt, string? VoidedReason, long? JobId);

/// <summary>The services of all machines. One that was entered wrongly is voided: kept, struck through, out of the judgement.</summary>
public sealed class ServiceStore(Database database, TimeProvider clock)
{
    /// <summary>Adds services in one transaction.</summary>
    /// <returns>How many were new; the rest was known already.</returns>
    public int Add(IEnumerable<(string Tag, ServiceDone Service)> services) =>
        database.Write(connection =>
        {
            var ids = connection.Query("SELECT tag, id FROM asset", r => (r.GetString(0), r.GetInt64(1))).ToDictionary();
            return services.Count(s => FleetStore.AddService(connection, ids[s.Tag], s.Service));
        });

    /// <summary>A machine's services, newest first, voided ones included.</summary>
    public IReadOnlyList<StoredService> Of(long assetId) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT s.id, s.date, s.level, s.voided_at, s.voided_reason, (SELECT j.id FROM job j WHERE j.service_id = s.id)
                FROM service s WHERE s.asset_id = $id ORDER BY s.date DESC, s.id DESC
                """,
                r => new StoredService(
                    r.GetInt64(0),
                    new ServiceDone(r.Date(1), ReadLevel(r.GetString(2))),
                    r.InstantOrNull(3),
                    r.TextOrNull(4),
                    r.IsDBNull(5) ? null : r.GetInt64(5)
                ),
                ("$id", assetId)
            )
        );

    /// <summary>Voids a service with a reason, or with null takes the voiding back.</summary>
    /// <returns>False when there is no such service.</returns>
    public bool Void(long assetId, long serviceId, string? reason) =>
        database.Write(connection =>
        {
            using var command = connection.Command(
                "UPDATE service SET voided_at = $at, voided_reason = $reason WHERE id = $id AND asset_id = $asset",
                ("$at", reason is null ? null : Sql.Text(clock.GetUtcNow())),
                ("$reason", reason),
                ("$id", serviceId),
                ("$asset", assetId)
            );
            return command.ExecuteNonQuery() > 0;
        });

    internal static ServiceLevel ReadLevel(string word) =>
        Words.TryRead<ServiceLevel>(word, out var level)
            ? level
            : throw new InvalidDataException($"The database holds '{word}', which is no service level.");
}
