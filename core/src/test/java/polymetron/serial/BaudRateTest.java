package polymetron.serial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Divisors and errors of the PC16550D data sheet, table III "Baud rates using" 1.8432 MHz and 3.072 MHz (values
 * as remembered; a dash in the table is 0 here).
 */
final class BaudRateTest {
    @ParameterizedTest
    @CsvSource({
        "1843200, 50, 2304, 0",
        "1843200, 75, 1536, 0",
        "1843200, 110, 1047, 0.026",
        "1843200, 150, 768, 0",
        "1843200, 300, 384, 0",
        "1843200, 600, 192, 0",
        "1843200, 1200, 96, 0",
        "1843200, 1800, 64, 0",
        "1843200, 2000, 58, 0.69",
        "1843200, 2400, 48, 0",
        "1843200, 3600, 32, 0",
        "1843200, 4800, 24, 0",
        "1843200, 7200, 16, 0",
        "1843200, 9600, 12, 0",
        "1843200, 19200, 6, 0",
        "1843200, 38400, 3, 0",
        "1843200, 56000, 2, 2.86",
        "3072000, 50, 3840, 0",
        "3072000, 110, 1745, 0.026",
        "3072000, 300, 640, 0",
        "3072000, 1800, 107, 0.312",
        "3072000, 2000, 96, 0",
        "3072000, 3600, 53, 0.628",
        "3072000, 7200, 27, 1.23",
        "3072000, 9600, 20, 0",
        "3072000, 38400, 5, 0",
    })
    void agreesWithTheDataSheet(long clockHz, long wanted, long divisor, double errorPercent) {
        BaudRate rate = new BaudRate(wanted, clockHz);
        assertThat(rate.divisor()).isEqualTo(divisor);
        assertThat(Math.abs(rate.errorPercent())).isCloseTo(errorPercent, within(0.01));
        assertThat(rate.isWithinLimit()).isEqualTo(errorPercent <= 2);
    }
}
