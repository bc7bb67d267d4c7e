package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Capability;
import polymetron.library.HardwareAccess;
import polymetron.library.OnWrite;

/**
 * Every model that the bench makes, those with registers of their own as well, against the description of its fields: what
 * they have after reset, what they keep, and what they never show.
 */
final class DescribedRegistersTest {
    /** A register of a block, at one place of its row. */
    private record Subject(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            SizedInterface form,
            Register register,
            int index) {
        BlockModel model() {
            BlockModel model = BlockModels.create(platform, block, form, 100_000_000).orElseThrow();
            model.reset();
            return model;
        }

        long peek(BlockModel model) {
            int word = (int) register.offset(index) & ~3;
            int shift = 8 * ((int) register.offset(index) & 3);
            long low = Integer.toUnsignedLong(model.peek(word)) >>> shift;
            return register.width() == 64
                    ? low | Integer.toUnsignedLong(model.peek(word + 4)) << 32
                    : low;
        }

        void write(BlockModel model, long value, long mask) {
            int word = (int) register.offset(index) & ~3;
            int shift = 8 * ((int) register.offset(index) & 3);
            model.write(word, (int) (value << shift), (int) (mask << shift));
            if (register.width() == 64) {
                model.write(word + 4, (int) (value >>> 32), (int) (mask >>> 32));
            }
        }

        @Override
        public String toString() {
            return "%s (%s) %s[%s]"
                    .formatted(block.name(), block.type().identity(), register.name(), index);
        }
    }

    private static List<Subject> subjects(String recipe) {
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.recipe(recipe));
        List<Subject> subjects = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedInterface form : block.shape().busInterfaces()) {
                for (Register register : block.shape().registersOf(form.name())) {
                    subjects.add(new Subject(platform, block, form, register, 0));
                    if (register.count() > 1) {
                        subjects.add(
                                new Subject(platform, block, form, register, register.count() - 1));
                    }
                }
            }
        }
        return subjects;
    }

    @ParameterizedTest
    @ValueSource(strings = {"station", "recorder", "acquisition", "lock", "panel"})
    void modelsDoWhatTheirFieldsSay(String recipe) {
        List<Subject> subjects = subjects(recipe);
        assertThat(subjects).hasSizeGreaterThan(20);
        for (Subject subject : subjects) {
            long clockHz = subject.platform().frequencyHz(subject.block());
            for (Field field : subject.register().fields()) {
                check(subject, field, field.reset(clockHz) << field.lowBit() & field.mask());
            }
        }
    }

    private static void check(Subject subject, Field field, long reset) {
        String what = subject + "." + field.name();
        BlockModel model = subject.model();
        if (!model.isThere(subject.register().name())) {
            return;
        }
        boolean isKept = field.type().hardware() != HardwareAccess.VALUE;
        boolean reads = field.type().software().reads();
        if (reads && isKept && isAlone(subject)) {
            assertThat(subject.peek(model) & field.mask())
                    .as(what + " after reset")
                    .isEqualTo(reset);
        }
        OnWrite onWrite = field.type().onWrite();
        if (!field.type().software().writes()) {
            if (isKept && isAlone(subject)) {
                subject.write(model, -1, field.mask());
                assertThat(subject.peek(model) & field.mask())
                        .as(what + " is read-only")
                        .isEqualTo(reset);
            }
        } else if (onWrite == OnWrite.PULSE) {
            subject.write(model, -1, field.mask());
            assertThat(subject.peek(model) & field.mask()).as(what + " is a pulse").isZero();
        } else if (reads
                && onWrite.stores()
                && field.type().hardware() == HardwareAccess.NONE
                && field.type().lockedBy() == null) {
            for (long bits : new long[] {-1, 0, 0x5555_5555_5555_5555L}) {
                subject.write(model, bits, field.mask());
                if (model.isThere(subject.register().name())) {
                    assertThat(subject.peek(model) & field.mask())
                            .as(what + " keeps what is written")
                            .isEqualTo(bits & field.mask() & sources(subject));
                }
            }
        }
    }

    /** RISC-V PLIC 1.0.0, "Interrupt Enables": bit 0 and those of sources that are not there are 0. */
    private static long sources(Subject subject) {
        if (!subject.register().name().startsWith("ENABLE")) {
            return -1;
        }
        for (var controller : subject.block().type().provides(Capability.Controller.class)) {
            if (controller.registers().equals(subject.form().name())) {
                long count = subject.block().shape().number(controller.sources(), 0);
                long first = 32L * subject.index();
                long bits = 0;
                for (long source = Math.max(1, first); source < first + 32; source++) {
                    bits |= source <= count ? 1L << source - first : 0;
                }
                return bits;
            }
        }
        return -1;
    }

    /** Whether no other register that is read shares the address. */
    private static boolean isAlone(Subject subject) {
        return subject.block().shape().registersOf(subject.form().name()).stream()
                .filter(other -> !other.name().equals(subject.register().name()))
                .filter(other -> other.offset() == subject.register().offset())
                .noneMatch(other -> other.access().readable());
    }
}
