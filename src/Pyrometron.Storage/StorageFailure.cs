using Microsoft.Data.Sqlite;
using Pyrometron.Core.Messages;

namespace Pyrometron.Storage;

/// <summary>Why something could not be stored though nothing is wrong with it: the disk, its rights, the file.</summary>
public static class StorageFailure
{
    /// <summary>What failed and what to do, in one line; null for any other error.</summary>
    public static Message? Of(Exception? error) =>
        error switch
        {
            SqliteException { SqliteErrorCode: 13 } => "The disk is full. Make room, and send it again.",
            SqliteException { SqliteErrorCode: 8 or 14 } =>
                "The database may not be written to. Give the server the right to its folder, and send it again.",
            SqliteException { SqliteErrorCode: 10 } =>
                "The disk answers with an error. Look at the disk and its messages, and send it again.",
            SqliteException { SqliteErrorCode: 11 or 26 } =>
                "The database is damaged here. Stop the server and start it again: it tells what can be done.",
            SqliteException { SqliteErrorCode: 5 or 6 } => "Another program holds the database. Stop that, and send it again.",
            IOException io when DataFolder.IsFull(io) => "The disk is full. Make room, and send it again.",
            UnauthorizedAccessException => "The data folder may not be written to. Give the server the right to it.",
            _ => null,
        };
}
