package polymetron.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.library.Vlnv;

final class ShapeDifferenceTest {
    private static List<String> of(
            Vlnv type, Map<String, String> before, Map<String, String> after) {
        var form = Shipped.LIBRARY.type(type).orElseThrow();
        String changed = after.keySet().iterator().next();
        return ShapeDifference.of(
                new BlockShape(form, before), new BlockShape(form, after), changed);
    }

    @Test
    void saysWhatAParameterChanges() {
        assertThat(of(Shipped.MEMORY, Map.of("SIZE", "16384"), Map.of("SIZE", "65536")))
                .containsExactly("range of port: 16 KiB → 64 KiB", "memory bits: 131072 → 524288");
        assertThat(of(Shipped.GPIO, Map.of(), Map.of("DIRECTION", "in")))
                .contains(
                        "port lines.value: 8 output → 8 input",
                        "register INPUT: reset 0x0, new",
                        "register OUTPUT: gone");
        assertThat(of(Shipped.PROCESSOR, Map.of(), Map.of("RESET_VECTOR", "0x100")))
                .contains("TRAP_VECTOR: 64 → 320");
        assertThat(of(Shipped.CONTROLLER, Map.of(), Map.of("SOURCES", "40")))
                .contains(
                        "interrupt inputs: 15 inputs → 40 inputs",
                        "register PENDING: reset 0x0 → 2 of them");
        assertThat(of(Shipped.GPIO, Map.of("WIDTH", "8"), Map.of("WIDTH", "8"))).isEmpty();
    }
}
