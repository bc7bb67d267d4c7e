package polymetron.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.platform.Platform;

/** Prefixes of the International System of Units and of IEC 80000-13, with the units of parameters. */
final class TypedQuantitiesTest {
    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "115.2k, Bd, 115200",
                "115200 Bd, Bd, 115200",
                "115k, Bd, 115000",
                "12.5 MHz, Hz, 12500000",
                "12.5MHz, Hz, 12500000",
                "1 Ki, Hz, 1024",
                "100 ms, s, 0.1",
                "4.7 µs, s, 0.0000047",
                "3.3 V, V, 3.3",
                "64K, bytes, 65536",
                "64k, bytes, 65536",
                "16 KiB, bytes, 16384",
                "256 MiB + 36 KiB, bytes, 268435456 + 36864",
                "2 * WIDTH + 4K, bytes, 2 * WIDTH + 4096",
                "1K, words, 1024",
                "8 bit, bit, 8",
                "1 G, -, 1073741824",
                // What is no quantity of that unit stays, for a clear refusal.
                "12 MHz, Bd, 12 MHz",
                "100 m, s, 100 m",
                "0x1000_0000, bytes, 0x1000_0000",
                "32'h1000, -, 32'h1000",
                "WIDTH2 k, Bd, WIDTH2 k",
                "A1K, bytes, A1K"
            })
    void becomePlainNumbers(String typed, String unit, String plain) {
        assertThat(TypedQuantities.plain(typed, unit)).isEqualTo(plain);
    }

    @Test
    void areWhatAParameterTakes() {
        assertThat(set("console", "BAUD", "115.2k")).isEqualTo("115200");
        assertThat(set("console", "BAUD", "9600 Bd")).isEqualTo("9600");
        assertThat(set("code", "SIZE", "16 KiB + 8 KiB")).isEqualTo("24576");
        assertThat(set("code", "SIZE", "32'd32768")).isEqualTo("32'd32768");
        assertThat(set("cpu", "RESET_VECTOR", "32'h0000_1000")).isEqualTo("0x0000_1000");
        assertThat(set("cpu", "RESET_VECTOR", "4 KiB")).isEqualTo("0x0000_1000");
        assertThat(set("cpu", "TRAP_VECTOR", "RESET_VECTOR + 4K")).isEqualTo("RESET_VECTOR + 4096");
    }

    private static String set(String block, String parameter, String text) {
        Platform platform = Shipped.demo();
        return new Editor(Shipped.LIBRARY)
                .apply(platform, new Edit.SetParameter(block, parameter, text))
                .block(block)
                .orElseThrow()
                .parameters()
                .get(parameter);
    }
}
