namespace Pyrometron.Storage;

/// <summary>A photo to keep.</summary>
/// <param name="Picture">JPEG.</param>
/// <param name="Small">Its thumbnail, JPEG.</param>
public sealed record StoredPhoto(Guid Key, int Width, int Height, byte[] Picture, byte[] Small);

/// <summary>Photos of jobs. A photo's bytes are stored before the entry that tells of it.</summary>
public sealed class PhotoStore(Database database)
{
    /// <summary>Keeps a photo; sent again it takes the place of the first.</summary>
    /// <returns>False when the key is another job's.</returns>
    public static bool Keep(Transaction t, long job, StoredPhoto photo) =>
        t.Connection.Scalar(
            """
            INSERT INTO photo (key, job_id, width, height, picture, small) VALUES ($key, $job, $width, $height, $picture, $small)
            ON CONFLICT (key) DO UPDATE SET width = excluded.width, height = excluded.height, picture = excluded.picture,
                small = excluded.small
            WHERE photo.job_id = excluded.job_id RETURNING 1
            """,
            ("$key", photo.Key.ToString("N")),
            ("$job", job),
            ("$width", photo.Width),
            ("$height", photo.Height),
            ("$picture", photo.Picture),
            ("$small", photo.Small)
        )
            is not null;

    /// <summary>A photo's bytes, or null.</summary>
    public byte[]? Find(Guid key, bool small) =>
        database.Read(connection =>
            (byte[]?)
                connection.Scalar(
                    $"SELECT {(small ? "small" : "picture")} FROM photo WHERE key = $key",
                    ("$key", key.ToString("N"))
                )
        );

    /// <summary>Whether a job has a photo of this key.</summary>
    public static bool Has(Transaction t, Guid key, long job) =>
        t.Connection.Scalar("SELECT 1 FROM photo WHERE key = $key AND job_id = $job", ("$key", key.ToString("N")), ("$job", job))
            is not null;
}
