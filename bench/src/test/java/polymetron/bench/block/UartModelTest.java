package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.library.Vlnv;

/** Behaviour that the PC16550D data sheet gives its registers (section numbers from memory). */
final class UartModelTest {
    private static final int RBR = 0x00;
    private static final int IER = 0x04;
    private static final int IIR = 0x08;
    private static final int FCR = 0x08;
    private static final int LCR = 0x0C;
    private static final int MCR = 0x10;
    private static final int LSR = 0x14;
    private static final int SCR = 0x1C;
    private static final int CHARACTER = 160;

    private static final List<Register> REGISTERS =
            new BlockShape(
                            Shipped.LIBRARY
                                    .type(Vlnv.parse("polymetron:serial:uart:1.0"))
                                    .orElseThrow(),
                            Map.of("BAUD", "115200"))
                    .registers();

    /** With a clock of 16 times the rate: the divisor is 1. */
    private final UartModel uart = new UartModel(new RegisterBank(REGISTERS, 16 * 115_200));

    private long time;

    private void write(int offset, int value) {
        uart.write(offset, value, -1);
    }

    /** Lets so many characters pass on the line. */
    private void pass(int characters) {
        time += (long) characters * CHARACTER;
        uart.advance(time);
    }

    private void arrive(String text) {
        uart.arrive(text.getBytes(StandardCharsets.US_ASCII));
        pass(text.length());
    }

    @Test
    void registersHaveTheirResetValues() {
        assertThat(uart.read(IER)).isZero();
        assertThat(uart.read(IIR)).isEqualTo(0x01);
        assertThat(uart.read(LSR)).isEqualTo(0x60);
        assertThat(uart.interrupt("irq")).isFalse();
    }

    @Test
    void divisorLatchTakesThePlaceOfDataAndEnableRegisters() {
        write(LCR, 0x83);
        write(RBR, 0x34);
        write(IER, 0x12);
        assertThat(uart.isThere("DLL")).isTrue();
        assertThat(uart.isThere("RBR")).isFalse();
        assertThat(uart.read(RBR)).isEqualTo(0x34);
        assertThat(uart.read(IER)).isEqualTo(0x12);
        write(LCR, 0x03);
        assertThat(uart.read(IER)).isZero();
        assertThat(uart.isThere("DLM")).isFalse();
        write(SCR, 0xA5);
        assertThat(uart.read(SCR)).isEqualTo(0xA5);
    }

    @Test
    void sendsOneCharacterInTenBitTimes() {
        write(FCR, 1);
        "hello".chars().forEach(character -> write(RBR, character));
        assertThat(uart.read(LSR) & 0x60).as("something to send").isZero();
        pass(4);
        assertThat(new String(uart.takeSent(), StandardCharsets.US_ASCII)).startsWith("hell");
        assertThat(uart.read(LSR) & 0x40).as("still shifting").isZero();
        pass(2);
        assertThat(uart.read(LSR) & 0x60).isEqualTo(0x60);
    }

    @Test
    void raisesTheReceiveInterruptAtItsTriggerLevel() {
        write(FCR, 0x41); // FIFOs on, trigger level 4
        write(IER, 1);
        arrive("abc");
        assertThat(uart.interrupt("irq")).isFalse();
        arrive("d");
        assertThat(uart.interrupt("irq")).isTrue();
        assertThat(uart.read(IIR)).isEqualTo(0xC4);
        assertThat((char) uart.read(RBR)).isEqualTo('a');
        assertThat(uart.interrupt("irq")).isFalse();
    }

    @Test
    void tellsOfCharactersBelowTheTriggerLevelAfterFourCharacterTimes() {
        write(FCR, 0xC1); // trigger level 14
        write(IER, 1);
        arrive("x");
        pass(3);
        assertThat(uart.interrupt("irq")).isFalse();
        pass(1);
        assertThat(uart.read(IIR)).isEqualTo(0xCC);
        uart.read(RBR);
        assertThat(uart.read(IIR)).isEqualTo(0xC1);
    }

    @Test
    void losesWhatComesWhenTheFifoIsFullAndSaysSoOnce() {
        write(FCR, 1);
        write(IER, 4);
        arrive("0123456789abcdefg");
        assertThat(uart.read(IIR)).isEqualTo(0xC6);
        assertThat(uart.read(LSR) & 0x03).isEqualTo(0x03);
        assertThat(uart.read(LSR) & 0x03).isEqualTo(0x01);
        StringBuilder text = new StringBuilder();
        while ((uart.read(LSR) & 1) != 0) {
            text.append((char) uart.read(RBR));
        }
        assertThat(text).hasToString("0123456789abcdef");
    }

    @Test
    void emptyTransmitterInterruptIsClearedByReadingItsCause() {
        write(IER, 2);
        write(RBR, 'x');
        pass(1);
        assertThat(uart.read(IIR)).isEqualTo(0x02);
        assertThat(uart.read(IIR)).isEqualTo(0x01);
    }

    @Test
    void loopsBackWhenAsked() {
        write(MCR, 0x10);
        write(RBR, 'q');
        pass(1);
        assertThat((char) uart.read(RBR)).isEqualTo('q');
        assertThat(uart.takeSent()).isEmpty();
    }
}
