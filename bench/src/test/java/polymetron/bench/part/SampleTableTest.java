package polymetron.bench.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Samples from a table, and a clear word for a table that holds none (RFC 4180). */
final class SampleTableTest {
    @Test
    void readsRowsWithOrWithoutTitles() {
        int[][] expected = {{1, -2}, {32767, -32768}};
        assertThat(SampleTable.read("1,-2\n32767,-32768\n", 2, 16)).isDeepEqualTo(expected);
        assertThat(SampleTable.read("\uFEFFnorth,east\r\n 1 ,-2.0\r\n\r\n32767,\"-32768\"", 2, 16))
                .isDeepEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1,2,3 | line 1 has 3 values; the converter has 2 channels",
                "1;2 | with 2 whole numbers between commas",
                "'1,2\n3,4.5' | line 2, channel 1: \"4.5\" is no sample of 16 bits",
                "'a,b\nc,d' | line 2, channel 0: \"c\" is no sample",
                "'1,2\n40000,0' | write a whole number from -32768 to 32767",
                "'1,1e3' | \"1e3\" is no sample",
                "'north,east' | the table has no samples"
            })
    void saysWhereATableIsNone(String table, String message) {
        assertThatThrownBy(() -> SampleTable.read(table, 2, 16))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(message);
        assertThatThrownBy(() -> SampleTable.read("", 2, 16)).hasMessageContaining("no samples");
        assertThatThrownBy(() -> SampleTable.read("PK\u0003\u0004", 2, 16))
                .hasMessageContaining("has no samples");
    }

    @Test
    void goesOverAndOverFromWhereItBegan() {
        ConverterSignal signal = new ConverterSignal(new int[][] {{9, 9}}, 16);
        assertThat(signal.hasTable()).isFalse();
        signal.next();
        signal.set(SampleTable.read("1,2\n3,4\n5,6", 2, 16));
        int[][] rows = {signal.next(), signal.next(), signal.next(), signal.next()};
        assertThat(rows).isDeepEqualTo(new int[][] {{1, 2}, {3, 4}, {5, 6}, {1, 2}});
        signal.set(ConverterSignal.Shape.RECORDED);
        assertThat(signal.next()).containsExactly(9, 9);
    }
}
