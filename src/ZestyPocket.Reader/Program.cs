using ZestyPocket.Drawing.Photos.Reading;

// Decodes files of other people for a server that started it: see ReaderPool.
PictureReading.Serve(Console.OpenStandardInput(), Console.OpenStandardOutput());
