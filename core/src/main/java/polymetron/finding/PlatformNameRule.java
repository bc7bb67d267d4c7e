package polymetron.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Names;
import polymetron.platform.Titles;

/** The files of the hand-off cannot have the name of the platform. */
final class PlatformNameRule extends PlainRule {
    PlatformNameRule() {
        super(
                "platform-name",
                Grade.ERROR,
                "Platform name that no file can have",
                "Header, linker script and images are named after the platform. A header with the"
                    + " name of one of C or of POSIX is included instead of it, and characters that"
                    + " are not shown make two names look alike.");
    }

    /** Headers of C11, 7.1.2, of POSIX.1-2017, and of C23, without .h. */
    private static final Set<String> HEADERS =
            Set.of(
                    ("aio assert complex cpio ctype dirent dlfcn errno fcntl fenv float fmtmsg"
                         + " fnmatch ftw glob grp iconv inttypes iso646 langinfo libgen limits"
                         + " locale math monetary mqueue ndbm netdb nl_types poll pthread pwd regex"
                         + " sched search semaphore setjmp signal spawn stdalign stdarg stdatomic"
                         + " stdbit stdbool stdckdint stddef stdint stdio stdlib stdnoreturn string"
                         + " strings stropts syslog tar termios tgmath threads time trace uchar"
                         + " ulimit unistd utime utmpx wchar wctype wordexp")
                            .split(" "));

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        String name = platform.platform().name();
        String base = Names.fromTitle(name);
        String shown = Titles.shown(name);
        if (HEADERS.contains(base)) {
            report.accept(
                    finding(
                            "platform",
                            "%s.h is a header of C or POSIX".formatted(base),
                            List.of(rename(shown + " platform"))));
        } else if (!shown.equals(name)) {
            report.accept(
                    finding(
                            "platform",
                            "the platform's name has characters that are not shown",
                            List.of(rename(shown))));
        }
    }

    private static Fix rename(String name) {
        return new Fix("Rename to " + name, new Edit.RenamePlatform(name));
    }
}
