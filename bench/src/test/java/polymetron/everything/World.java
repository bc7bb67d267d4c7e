package polymetron.everything;

import java.nio.charset.StandardCharsets;
import polymetron.bench.block.BankModel;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.GpioModel;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.TargetRange;

/** What is outside a machine: reads its console, and does what the program asks for in lines that begin with "?". */
final class World {
    private static final int SLICE = 2_000;
    private static final int LAST_SLICES = 100;
    private static final double LONGEST_SECONDS = 20;
    private final Machine machine;
    private final StringBuilder said = new StringBuilder();
    private int read;

    World(Machine machine) {
        this.machine = machine;
        for (TargetRange target : machine.view().devices()) {
            if (model(target) instanceof GpioModel gpio) {
                gpio.setOutside((int) DeviceExercises.GPIO_OUTSIDE);
            }
        }
        machine.settle();
    }

    private BlockModel model(TargetRange target) {
        return machine.model(target.ref()).orElse(null);
    }

    /** What the program says until some words, or until nothing more can come. */
    String says(String last) {
        // A program that has come to its end may still be sending.
        for (int more = 0; machine.seconds() < LONGEST_SECONDS && more < LAST_SLICES; ) {
            more = machine.hart().isStuck() ? more + 1 : 0;
            machine.run(SLICE);
            byte[] bytes = machine.console().orElseThrow().takeSent();
            if (bytes.length > 0) {
                said.append(new String(bytes, StandardCharsets.ISO_8859_1));
                answer();
            }
            if (said.indexOf(last) >= 0) {
                break;
            }
        }
        return said.toString();
    }

    private void answer() {
        for (int end = said.indexOf("\n", read); end >= 0; end = said.indexOf("\n", read)) {
            String line = said.substring(read, end);
            read = end + 1;
            if (line.startsWith("?")) {
                answer(line.substring(1).split(" "));
                machine.settle();
            }
        }
    }

    private void answer(String[] words) {
        String label =
                words[0].equals("set")
                        ? words[1]
                        : words[1].substring(0, words[1].lastIndexOf('.'));
        BlockModel model =
                machine.view().devices().stream()
                        .filter(target -> target.label().equals(label))
                        .map(this::model)
                        .findFirst()
                        .orElseThrow();
        switch (model) {
            case GpioModel gpio -> gpio.setOutside((int) ~DeviceExercises.GPIO_OUTSIDE);
            case BankModel registers -> {
                if (words[0].equals("set")) {
                    registers.raise(
                            Integer.parseInt(words[2], 16), Integer.parseUnsignedInt(words[3], 16));
                } else {
                    registers.drive(
                            words[1].substring(words[1].lastIndexOf('.') + 1),
                            words[0].equals("raise"));
                }
            }
            default -> throw new IllegalStateException("nothing to do for " + label);
        }
    }
}
