package polymetron.everything;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import polymetron.outside.Tool;

/** The compilers that programs are tried with, all warnings as errors. */
enum Toolchain {
    GCC_C("riscv64-unknown-elf-gcc", "c", "-std=c11"),
    GCC_CPP("riscv64-unknown-elf-g++", "c++", "-std=c++17"),
    CLANG_C("clang", "c", "-std=c11"),
    CLANG_CPP("clang++", "c++", "-std=c++17");

    private final String command;
    private final String language;
    private final String standard;

    Toolchain(String command, String language, String standard) {
        this.command = command;
        this.language = language;
        this.standard = standard;
    }

    /**
     * Compiles a program to an object file.
     *
     * @param instructions such as {@code rv32im}
     */
    void compile(Path folder, String source, String object, String instructions) {
        List<String> words = new ArrayList<>(List.of(command, "-x", language, standard));
        boolean isClang = command.startsWith("clang");
        if (isClang) {
            words.add("--target=riscv32-unknown-elf");
        } else {
            words.add("-misa-spec=2.2");
        }
        words.addAll(
                List.of(
                        "-march=" + instructions,
                        "-mabi=ilp32",
                        "-mcmodel=medany",
                        "-Os",
                        "-Wall",
                        "-Wextra",
                        "-Werror",
                        "-pedantic",
                        "-ffreestanding",
                        "-ffunction-sections",
                        "-fno-jump-tables"));
        if (language.equals("c++")) {
            words.addAll(List.of("-fno-exceptions", "-fno-rtti", "-fno-threadsafe-statics"));
        }
        words.addAll(List.of("-c", source, "-o", object));
        Tool.run(folder, words.toArray(String[]::new));
    }

    /** Links objects with start-up code and linker script of the hand-off; any warning is an error. */
    static void link(
            Path folder,
            String instructions,
            String script,
            String start,
            String object,
            String elf) {
        Tool.run(
                folder,
                ("riscv64-unknown-elf-gcc -march=%s -misa-spec=2.2 -mabi=ilp32 -mcmodel=medany"
                                + " -nostdlib -nostartfiles -Wl,--fatal-warnings -Wl,--gc-sections"
                                + " -Wl,--build-id=none -T %s %s %s -lgcc -o %s")
                        .formatted(instructions, script, start, object, elf)
                        .split(" "));
    }
}
