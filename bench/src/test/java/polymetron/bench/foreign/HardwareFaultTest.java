package polymetron.bench.foreign;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Places as yosys 0.23 lists them. */
final class HardwareFaultTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "mutate -mode const0 -cell $flatten\\a.$procmux$2072 -port B -portbit 22 -src"
                        + " top.v:119.125-133.14 -src a.v:321.21-325.24 -src a.v:321.25-321.34 |"
                        + " a.v:321 | a bit of an expression stuck at 0",
                "mutate -mode cnot0 -cell $flatten\\a.\\b.$auto$proc_memwr.cc:45:proc_memwr$2544"
                        + " -port EN -portbit 14 -ctrlbit 12 -src top.v:78.125-91.14 -src"
                        + " b.v:50.19-50.36 -src a.v:108.83-118.6 | b.v:50 | a bit of an expression"
                        + " inverted by another bit",
                "mutate -mode inv -cell $flatten\\a.$procdff$2141 -port Q -portbit 25 -wire a.told"
                        + " -wirebit 25 -src a.v:224.17-224.21 -src top.v:119.125-133.14 -src"
                        + " a.v:265.5-265.8 | a.v:224 | a.told[25] inverted",
                "mutate -mode const1 -cell $flatten\\a.$and$a.v:210$1390 -port Y -portbit 0 -src"
                        + " top.v:119.1-119.2 | a.v:210 | a bit of an expression stuck at 1",
                "mutate -mode const1 -cell $1 | ? | a bit of an expression stuck at 1"
            })
    void saysWhereItIs(String command, String at, String what) {
        HardwareFault fault = HardwareFault.of(command);
        assertThat(fault.at()).isEqualTo(at);
        assertThat(fault.what()).isEqualTo(what);
        assertThat(fault.command()).isEqualTo(command);
    }
}
