package polymetron.output.software;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import polymetron.elaborate.TargetRange;
import polymetron.software.SoftwareView;

/**
 * Macros of the C header that would be defined twice. A macro is the name of its target and what follows, so two can only
 * be the same where the name of one target begins that of another, or where it begins a name that the header or C has.
 */
public final class HeaderClashes {
    /** Macros of limits.h and stdint.h (C11, 5.2.4.2.1 and 7.20; C23 adds WIDTH) that a block could lead to. */
    private static final Pattern OF_C =
            Pattern.compile(
                    "(U?INT((_LEAST|_FAST)?(8|16|32|64)|MAX|PTR)?|PTRDIFF|SIG_ATOMIC|SIZE|WCHAR|WINT|[SU]?CHAR|U?SHRT|U?L?LONG|BOOL)_(MIN|MAX|C|WIDTH|BIT)");

    /** Where such names begin. */
    private static final Pattern BEGINS_OF_C =
            Pattern.compile(
                    "(U?INT(_LEAST|_FAST)?(8|16|32|64|MAX|PTR)?|PTRDIFF|SIG(_ATOMIC)?|SIZE|WCHAR|WINT|[SU]?CHAR|U?SHRT|U?L?LONG|BOOL)");

    private static final Set<String> OWN =
            Set.of(
                    "PLATFORM_U",
                    "PLATFORM_ULL",
                    "PLATFORM_NAME",
                    "PLATFORM_FINGERPRINT",
                    "PLATFORM_FINGERPRINT_HIGH",
                    "PLATFORM_FINGERPRINT_LOW",
                    "PLATFORM_CHECK");

    private HeaderClashes() {}

    /**
     * A macro that two things lead to.
     *
     * @param block block that leads to it
     * @param other the other block; null when it is the platform's or C's
     */
    public record Clash(String macro, String block, String other) {}

    /** The clashes of a program's header, each pair once, in address order. */
    public static List<Clash> of(SoftwareView view) {
        Map<String, List<TargetRange>> byPrefix = new LinkedHashMap<>();
        for (TargetRange target : view.targets()) {
            String prefix = CText.macro(target.label());
            byPrefix.computeIfAbsent(prefix, name -> new ArrayList<>(1)).add(target);
            if (target.block().shape().hasSeveralTargets()) {
                String block = CText.macro(target.block().name());
                byPrefix.computeIfAbsent(block, name -> new ArrayList<>(1));
            }
        }
        Set<String> owners = new HashSet<>(byPrefix.keySet());
        owners.add("PLATFORM");
        owners.add("CLOCK");
        Set<TargetRange> suspects = new HashSet<>();
        byPrefix.forEach(
                (prefix, targets) -> {
                    boolean shares = BEGINS_OF_C.matcher(prefix).matches();
                    for (int at = prefix.indexOf('_'); at > 0; at = prefix.indexOf('_', at + 1)) {
                        String shorter = prefix.substring(0, at);
                        if (owners.contains(shorter)) {
                            shares = true;
                            suspects.addAll(byPrefix.getOrDefault(shorter, List.of()));
                        }
                    }
                    if (shares || prefix.equals("PLATFORM") || prefix.equals("CLOCK")) {
                        suspects.addAll(targets);
                    }
                });
        return suspects.isEmpty() ? List.of() : among(view, suspects);
    }

    private static List<Clash> among(SoftwareView view, Set<TargetRange> suspects) {
        Map<String, Macro> first = new HashMap<>();
        HeaderMacros.ofPlatform(view).forEach(macro -> first.put(macro.name(), macro));
        List<Clash> clashes = new ArrayList<>();
        Set<List<String>> told = new HashSet<>();
        List<TargetRange> targets = view.targets().stream().filter(suspects::contains).toList();
        for (Macro macro : HeaderMacros.of(view, targets)) {
            Macro other = first.putIfAbsent(macro.name(), macro);
            boolean isTaken = OWN.contains(macro.name()) || OF_C.matcher(macro.name()).matches();
            if (other != null || isTaken) {
                String block = other == null ? null : other.block();
                List<String> pair = new ArrayList<>();
                pair.add(macro.block());
                pair.add(block);
                if (told.add(pair)) {
                    clashes.add(new Clash(macro.name(), macro.block(), block));
                }
            }
        }
        return clashes;
    }
}
