namespace ZestyPocket.Storage.Documents;

/// <summary>
/// A stored document holds something that this version does not know. It is refused rather than read without it, since
/// writing it back would lose what was not understood.
/// </summary>
public sealed class StoredDocumentException(string what, Exception inner)
    : Exception(
        $"{what} was stored by another version of the program, or damaged: {inner.Message} Nothing was changed; "
            + "open it with the version that wrote it.",
        inner
    );
