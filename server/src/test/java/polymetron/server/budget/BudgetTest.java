package polymetron.server.budget;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;

/** More at a time than there is memory for: it waits or is refused, and the memory comes back. */
@ExtendWith(OneServer.class)
final class BudgetTest {
    private static final int UPLOADS = Integer.getInteger("polymetron.uploads", 6);
    private static final int BENCHES = Integer.getInteger("polymetron.benches", 20);
    private static final int SIZE = 60 << 20;

    private final RunningServer server;

    BudgetTest(RunningServer server) {
        this.server = server;
    }

    /** A program of one segment (System V ABI, figures 4-3 and 5-1), different for each number. */
    private static byte[] program(int number) {
        byte[] bytes = new byte[SIZE];
        ByteBuffer elf = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        elf.put(new byte[] {0x7F, 'E', 'L', 'F', 1, 1, 1}).position(16);
        elf.putShort((short) 2).putShort((short) 243).putInt(1).putInt(0).putInt(52).putInt(0);
        elf.putInt(0).putShort((short) 52).putShort((short) 32).putShort((short) 1);
        elf.position(52);
        elf.putInt(1).putInt(84).putInt(0).putInt(0).putInt(16).putInt(16).putInt(5).putInt(4);
        elf.putInt(84, number);
        return bytes;
    }

    private static long usedMebibytes() throws InterruptedException {
        for (int round = 0; round < 3; round++) {
            System.gc();
            Thread.sleep(100);
        }
        Runtime runtime = Runtime.getRuntime();
        return runtime.totalMemory() - runtime.freeMemory() >> 20;
    }

    @Test
    void largeUploadsAtTheSameTimeAreAllTaken() throws Exception {
        String id = server.create("Many uploads", "station");
        long before = usedMebibytes();
        List<Future<Answer>> answers = new ArrayList<>();
        try (var people = Executors.newFixedThreadPool(UPLOADS)) {
            for (int each = 0; each < UPLOADS; each++) {
                byte[] program = program(each);
                String path = "/api/platforms/%s/programs?name=p%s.elf".formatted(id, each);
                answers.add(people.submit(() -> server.upload(path, program)));
            }
        }
        for (Future<Answer> each : answers) {
            assertThat(each.get().status()).as(each.get().text()).isEqualTo(201);
        }
        answers.clear();
        assertThat(server.get("/api/platforms/" + id + "/programs").json()).hasSize(UPLOADS);
        System.out.printf("MiB used: %s before, %s after%n", before, usedMebibytes());
        assertThat(usedMebibytes()).as("MiB used").isLessThan(before + 50);
        server.send(server.request("/api/platforms/" + id).DELETE().build());
    }

    @Test
    void benchesThatAreLookedAtStayAndTheOthersMakeRoom() throws Exception {
        List<String> platforms = new ArrayList<>();
        Map<Integer, Integer> statuses = new TreeMap<>();
        long before = usedMebibytes();
        for (int each = 0; each < BENCHES; each++) {
            String platform =
                    "/api/platforms/"
                            + server.upload(
                                            "/api/platforms/import?name=ridge-station.json",
                                            Shipped.file("demo/ridge-station.json"))
                                    .json()
                                    .path("id")
                                    .asString();
            platforms.add(platform);
            String program =
                    server.upload(platform + "/programs?name=demo.elf", Shipped.demoProgram())
                            .json()
                            .path("id")
                            .asString();
            Answer loaded = server.post(platform + "/bench", Map.of("program", program));
            statuses.merge(loaded.status(), 1, Integer::sum);
            if (loaded.status() == 503) {
                assertThat(loaded.json().path("detail").asString()).contains("put one away");
            }
            if (each % 2 == 1) {
                server.send(server.request(platform + "/bench").DELETE().build());
            }
        }
        platforms.forEach(each -> server.send(server.request(each + "/bench").DELETE().build()));
        assertThat(statuses.keySet()).as(statuses.toString()).containsExactly(200, 503);
        System.out.printf("MiB used: %s before, %s after%n", before, usedMebibytes());
        assertThat(usedMebibytes()).as("MiB used").isLessThan(before + 150);
    }
}
