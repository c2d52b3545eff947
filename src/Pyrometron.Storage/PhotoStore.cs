namespace Pyrometron.Storage;

/// <summary>Photos of jobs. A photo's bytes are stored before the entry that tells of it.</summary>
public sealed class PhotoStore(Database database)
{
    /// <summary>Keeps a photo; the same key again changes nothing.</summary>
    /// <param name="picture">JPEG.</param>
    /// <param name="small">Its thumbnail, JPEG.</param>
    public void Keep(Guid key, long job, int width, int height, byte[] picture, byte[] small) =>
        database.Write(connection =>
            connection.Execute(
                "INSERT INTO photo (key, job_id, width, height, picture, small) VALUES ($key, $job, $width, $height, $picture, $small) ON CONFLICT DO NOTHING",
                ("$key", key.ToString("N")),
                ("$job", job),
                ("$width", width),
                ("$height", height),
                ("$picture", picture),
                ("$small", small)
            )
        );

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
    public bool Has(Guid key, long job) =>
        database.Read(connection =>
            connection.Scalar(
                "SELECT 1 FROM photo WHERE key = $key AND job_id = $job",
                ("$key", key.ToString("N")),
                ("$job", job)
            )
                is not null
        );
}
