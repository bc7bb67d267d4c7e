package polymetron.bench.machine;

import java.util.ArrayList;
import java.util.List;
import polymetron.bench.machine.ExerciseRun.Moved;

/** What happens outside, for the exercises that look there. */
final class OutsideOfExercises {
    private OutsideOfExercises() {}

    static List<Moved> of(String block) {
        List<Moved> world = new ArrayList<>();
        if (block.equals("pps-timestamp")) {
            // At 100.4 µs each, rounded to whole ones: the seventh is missing, and there is a
            // stray.
            for (int at = 0; at < 9; at++) {
                int micros = 250 + 101 * at;
                if (at != 6) {
                    world.add(new Moved(micros, "receiver", 1));
                    world.add(new Moved(micros + 10, "receiver", 0));
                }
                if (at == 3) {
                    world.add(new Moved(micros + 50, "receiver", 1));
                    world.add(new Moved(micros + 60, "receiver", 0));
                }
            }
        } else if (block.equals("analog-monitor")) {
            for (int at = 0; at < 64; at++) {
                int steps = at < 32 ? 132 * at : 132 * (63 - at);
                world.add(new Moved(300 + 30 * at, "battery", steps));
            }
        }
        return world;
    }
}
