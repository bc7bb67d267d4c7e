package polymetron.elaborate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.tngtech.archunit.core.domain.JavaField;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.lang.reflect.Field;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.library.LibraryLoader;

/** Passes use what they name, and nothing that is worked out can be changed by those who get it. */
final class PassesTest {
    private static final List<Pass<?>> PASSES = passes();

    private static List<Pass<?>> passes() {
        List<Pass<?>> found = new ArrayList<>();
        new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages("polymetron")
                        .stream()
                        .flatMap(type -> type.getFields().stream())
                        .filter(field -> field.getRawType().isEquivalentTo(Pass.class))
                        .forEach(field -> found.add(constant(field)));
        return found;
    }

    private static Pass<?> constant(JavaField found) {
        try {
            Field field = found.reflect();
            field.setAccessible(true);
            return (Pass<?>) field.get(null);
        } catch (IllegalAccessException impossible) {
            throw new AssertionError(impossible);
        }
    }

    @Test
    void passesAreNamedOnceAndNeverInACircle() {
        assertThat(PASSES).hasSizeGreaterThan(8);
        assertThat(PASSES.stream().map(Pass::name)).doesNotHaveDuplicates();
        for (Pass<?> pass : PASSES) {
            assertThat(PASSES).containsAll(pass.needs());
            Set<Pass<?>> before = new HashSet<>();
            Deque<Pass<?>> open = new ArrayDeque<>(pass.needs());
            while (!open.isEmpty()) {
                Pass<?> next = open.pop();
                if (before.add(next)) {
                    open.addAll(next.needs());
                }
            }
            assertThat(before).as(pass.name()).doesNotContain(pass);
        }
    }

    @Test
    void aPassThatUsesWhatItDoesNotNameIsAnError() {
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.demo());
        Pass<String> first = Pass.named("first", each -> "one");
        Pass<String> honest = Pass.named("honest", each -> each.result(first) + " two", first);
        Pass<String> sly = Pass.named("sly", each -> each.result(first) + " two");
        assertThat(platform.result(honest)).isEqualTo("one two");
        assertThatThrownBy(() -> platform.result(sly))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContainingAll("sly", "first");
        assertThat(platform.result(first)).as("after the error").isEqualTo("one");
    }

    @ParameterizedTest
    @ValueSource(strings = {"station", "recorder", "acquisition", "lock", "panel"})
    void nothingThatIsHandedOutCanBeChanged(String recipe) {
        // A library of its own, in case something can be changed.
        ElaboratedPlatform platform =
                new Elaborator(LibraryLoader.load()).elaborate(Shipped.recipe(recipe));
        List<Object> results = new ArrayList<>(List.of(platform));
        PASSES.forEach(pass -> results.add(platform.result(pass)));
        Walk walk = new Walk();
        results.forEach(walk::from);
        assertThat(walk.seen).hasSizeBetween(500, Walk.MOST - 1);
        assertThat(walk.changeable).isEmpty();
    }

    /** Goes through everything that public methods without parameters give, and tries to empty what is a collection. */
    private static final class Walk {
        private static final int MOST = 200_000;

        private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        private final Set<String> changeable = new TreeSet<>();

        private void from(Object start) {
            Deque<Object> open = new ArrayDeque<>();
            open.add(start);
            while (!open.isEmpty()) {
                Object next = open.pop();
                switch (next) {
                    case Collection<?> all -> add(open, all);
                    case Map<?, ?> map -> {
                        add(open, map.keySet());
                        add(open, map.values());
                    }
                    case Optional<?> maybe -> maybe.ifPresent(each -> add(open, List.of(each)));
                    default -> parts(next, open);
                }
            }
        }

        private void add(Deque<Object> open, Collection<?> all) {
            for (Object each : new ArrayList<>(all)) {
                if (each != null && seen.size() < MOST && seen.add(each)) {
                    open.push(each);
                }
            }
        }

        private void parts(Object object, Deque<Object> open) {
            Class<?> type = object.getClass();
            if (!type.getName().startsWith("polymetron.") || object instanceof Enum<?>) {
                return;
            }
            for (Method method : type.getMethods()) {
                boolean isGiven =
                        method.getParameterCount() == 0
                                && !Modifier.isStatic(method.getModifiers())
                                && method.getDeclaringClass() != Object.class
                                && !method.getReturnType().isPrimitive();
                if (isGiven) {
                    Object given = call(object, method);
                    // What is new for each caller leads to no end of things.
                    if (given != null && (isCollection(given) || given == call(object, method))) {
                        attack(
                                type.getSimpleName() + "." + method.getName(),
                                object,
                                method,
                                given);
                        add(open, List.of(given));
                    }
                }
            }
        }

        private void attack(String what, Object object, Method method, Object given) {
            if (!isCollection(given)) {
                return;
            }
            Object again = call(object, method);
            int size = size(again);
            try {
                if (given instanceof Collection<?> all) {
                    all.clear();
                } else {
                    ((Map<?, ?>) given).clear();
                }
            } catch (UnsupportedOperationException right) {
                return;
            }
            // A copy that is made for each caller may be changed.
            if (given == again || size(again) != size) {
                changeable.add(what);
            }
        }

        private static boolean isCollection(Object given) {
            return given instanceof Collection<?> || given instanceof Map<?, ?>;
        }

        private static int size(Object given) {
            return given instanceof Collection<?> all ? all.size() : ((Map<?, ?>) given).size();
        }

        private static Object call(Object object, Method method) {
            try {
                method.setAccessible(true);
                return method.invoke(object);
            } catch (InvocationTargetException refused) {
                return null;
            } catch (IllegalAccessException impossible) {
                throw new AssertionError(impossible);
            }
        }
    }
}
