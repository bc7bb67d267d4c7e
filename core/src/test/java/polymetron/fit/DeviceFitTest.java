package polymetron.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;

final class DeviceFitTest {
    private static ElaboratedPlatform demo(Edit... edits) {
        return Shipped.elaborate(
                new Editor(Shipped.LIBRARY)
                        .apply(Shipped.demo(), new Edit.Several("change", List.of(edits))));
    }

    @Test
    void theDemoFitsWithWhatItsBlocksSay() {
        DeviceFit fit = DeviceFit.of(demo()).orElseThrow();
        assertThat(fit.fits()).isTrue();
        assertThat(fit.memory().blocksUsed()).isEqualTo(16);
        assertThat(fit.memory().bitsUsed()).isEqualTo(16_384 * 8);
        // What is left holds exactly what it says, and not a word more.
        long words = fit.memory().deepest(32, true);
        String bytes = Long.toString(words * 4);
        ElaboratedPlatform full =
                demo(
                        new Edit.AddBlock("more", Shipped.MEMORY, null),
                        new Edit.SetParameter("more", "SIZE", bytes));
        assertThat(DeviceFit.of(full).orElseThrow().memory().blocksUsed()).isEqualTo(30);
        assertThat(DeviceFit.of(full).orElseThrow().memory().fits()).isTrue();
        assertThat(fit.amount("pins").used()).isEqualTo(24);
        assertThat(fit.amount("clock networks").used()).isEqualTo(1);
    }

    @Test
    void theNextDeviceOfTheFamilyIsNamed() {
        ElaboratedPlatform large = demo(new Edit.SetParameter("code", "SIZE", "32768"));
        DeviceFit fit = DeviceFit.of(large).orElseThrow();
        assertThat(fit.fits()).isFalse();
        assertThat(fit.bigger(large).map(Device::name)).contains("FL9-80");
        ElaboratedPlatform huge = demo(new Edit.SetParameter("code", "SIZE", "1048576"));
        assertThat(DeviceFit.of(huge).orElseThrow().bigger(huge)).isEmpty();
    }

    @Test
    void smallMemoriesAreMadeOfLookupTablesWhereTheDeviceCan() {
        ElaboratedPlatform large = Shipped.elaborate(Shipped.recipe("acquisition"));
        MemoryFit memory = DeviceFit.of(large).orElseThrow().memory();
        assertThat(memory.uses())
                .filteredOn(use -> use.place() == MemoryUse.Place.DISTRIBUTED)
                .extracting(MemoryUse::label)
                .contains("ground_decimate.history");
        assertThat(memory.filled()).hasSize((int) memory.unitsUsed());
        assertThat(memory.blocksUsed()).isEqualTo((memory.unitsUsed() + 1) / 2);
    }
}
