package polymetron.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

final class SoftwareAddressesTest {
    /** Against what the processor's own address space says of each target, which is worked out another way. */
    @ParameterizedTest
    @ValueSource(strings = {"station", "acquisition", "lock"})
    void areThoseAtWhichTheProcessorFindsTheTargets(String recipe) {
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.recipe(recipe));
        SoftwareAddresses software = new SoftwareAddresses(platform);
        AddressSpace first =
                platform.spaces().stream()
                        .filter(AddressSpace::isDataOfProcessor)
                        .findFirst()
                        .orElseThrow();
        int behind = 0;
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.placed()) {
                List<AddressRange> seen =
                        first.ranges().stream()
                                .filter(each -> each.ref().equals(target.ref()))
                                .filter(each -> !each.via().isEmpty())
                                .map(TargetRange::range)
                                .toList();
                assertThat(software.of(bus.name(), target.range()).stream().toList())
                        .as(target.label())
                        .isEqualTo(seen);
                behind += seen.size();
            }
        }
        assertThat(behind > 0).isEqualTo(recipe.equals("acquisition"));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void partsAreWholeAndInOrder(long seed) {
        Random random = new Random(seed);
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.recipe("acquisition"));
        SoftwareAddresses software = new SoftwareAddresses(platform);
        for (int probe = 0; probe < 200; probe++) {
            long base = random.nextLong(1L << 32);
            AddressRange range = new AddressRange(base, base + random.nextLong(1L << 28));
            for (ElaboratedBus bus : platform.buses()) {
                List<AddressRange> parts = software.parts(bus.name(), range);
                assertThat(parts.getFirst().base()).isEqualTo(range.base());
                assertThat(parts.getLast().last()).isEqualTo(range.last());
                for (int at = 1; at < parts.size(); at++) {
                    assertThat(parts.get(at).base()).isEqualTo(parts.get(at - 1).last() + 1);
                }
                assertThat(parts.stream().filter(part -> software.of(bus.name(), part).isPresent()))
                        .hasSizeLessThanOrEqualTo(1);
            }
        }
    }
}
