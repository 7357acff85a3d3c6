using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// Where originals and made files are kept: in folders, or in an object store that several servers share.
/// </summary>
public static class FileKeeping
{
    public static void AddFileKeeping(this IServiceCollection services, ZestySettings settings)
    {
        ArgumentNullException.ThrowIfNull(settings);
        if (settings.ObjectStore.ServiceUrl is null)
        {
            services.AddSingleton<IPhotoVault>(_ => new FolderVault(settings.Vault));
            services.AddSingleton<IMadeFiles, MadeFilesInFolder>();
            return;
        }

        services.AddSingleton(_ => new ObjectStore(settings.ObjectStore));
        services.AddSingleton<IPhotoVault>(s => new ObjectStoreVault(
            s.GetRequiredService<ObjectStore>(),
            settings.Vault,
            settings.ObjectStore.LocalMegabytes
        ));
        services.AddSingleton<IMadeFiles, MadeFilesInStore>();
        services.AddHostedService<Bucket>();
    }

    /// <summary>Makes the bucket before anything is kept.</summary>
    private sealed class Bucket(ObjectStore store) : IHostedService
    {
        public Task StartAsync(CancellationToken cancellationToken) => store.EnsureAsync(cancellationToken);

        public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    }
}
