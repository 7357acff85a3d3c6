using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

public sealed class BurstOrderTests
{
    private static readonly LocalDateTime Noon = new(2026, 5, 6, 12, 0, 0);

    [Fact]
    public void Pictures_of_one_second_stand_in_the_order_of_the_cameras_numbers() =>
        new[] { "DSC_0010.JPG", "DSC_0009.JPG", "DSC_0011 (edited).JPG" }
            .OrderBy(name => BurstOrder.Behind(name, Noon))
            .ShouldBe(["DSC_0009.JPG", "DSC_0010.JPG", "DSC_0011 (edited).JPG"]);

    [Theory]
    [InlineData("garden.jpg")]
    [InlineData("")]
    [InlineData("....")]
    public void A_name_without_a_number_is_behind_nothing(string name) =>
        BurstOrder.Behind(name, Noon).ShouldBe(Duration.Zero);

    [Fact]
    public void It_never_comes_past_what_the_camera_said()
    {
        BurstOrder.Behind("20260506_235959_999999.jpg", Noon).ShouldBeLessThan(Duration.FromSeconds(1));
        BurstOrder.Behind("IMG_9999.jpg", Noon.PlusMilliseconds(250)).ShouldBeLessThan(Duration.FromMilliseconds(1));
        BurstOrder.Behind("IMG_9999.jpg", null).ShouldBe(Duration.Zero);
    }
}
