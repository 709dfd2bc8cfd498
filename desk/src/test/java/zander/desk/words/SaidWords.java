package zander.desk.words;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreeScanner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javax.tools.ToolProvider;

/** What the sources of the window say: by key, and in texts of their own. */
final class SaidWords {
  /**
   * @param area the bundle
   * @param key with the class
   * @param values how many go with it; -1 when it is no literal
   */
  record Said(String area, String key, int values) {}

  /** A text in the code. */
  record Text(String file, String text) {}

  final List<Said> said = new ArrayList<>();
  final List<String> counted = new ArrayList<>();
  final List<Text> texts = new ArrayList<>();

  static SaidWords in(Path sources) throws IOException {
    List<Path> files;
    try (Stream<Path> all = Files.walk(sources)) {
      files = all.filter(file -> file.toString().endsWith(".java")).sorted().toList();
    }
    var compiler = ToolProvider.getSystemJavaCompiler();
    try (var manager = compiler.getStandardFileManager(null, null, null)) {
      JavacTask task =
          (JavacTask)
              compiler.getTask(
                  null,
                  manager,
                  null,
                  List.of("-proc:none"),
                  null,
                  manager.getJavaFileObjectsFromPaths(files));
      SaidWords words = new SaidWords();
      for (CompilationUnitTree unit : task.parse()) {
        words.read(unit);
      }
      return words;
    }
  }

  private void read(CompilationUnitTree unit) {
    String name = Path.of(unit.getSourceFile().toUri()).getFileName().toString();
    String user = name.replace(".java", "");
    String area = Words.area(unit.getPackageName().toString());
    unit.accept(
        new TreeScanner<Void, Void>() {
          @Override
          public Void visitAnnotation(AnnotationTree tree, Void unused) {
            return null;
          }

          @Override
          public Void visitMethodInvocation(MethodInvocationTree call, Void unused) {
            String called = call.getMethodSelect().toString();
            List<? extends ExpressionTree> given = call.getArguments();
            if (called.equals("WORDS.say")
                || called.matches("Words\\.of\\(\\w+\\.class\\)\\.say")) {
              boolean fixed = given.get(0) instanceof LiteralTree;
              String key = fixed ? (String) ((LiteralTree) given.get(0)).getValue() : "";
              said.add(new Said(area, user + "." + key, fixed ? given.size() - 1 : -1));
              given.stream().skip(fixed ? 1 : 0).forEach(value -> value.accept(this, null));
              return null;
            }
            if (called.equals("Texts.count")
                && given.size() == 2
                && given.get(1) instanceof LiteralTree thing) {
              counted.add((String) thing.getValue());
              return given.get(0).accept(this, null);
            }
            if (called.equals("requireNonNull")) {
              // Why it is there, for whoever was wrong about that.
              return given.get(0).accept(this, null);
            }
            return super.visitMethodInvocation(call, null);
          }

          @Override
          public Void visitLiteral(LiteralTree literal, Void unused) {
            if (literal.getValue() instanceof String text) {
              texts.add(new Text(name, text));
            }
            return null;
          }
        },
        null);
  }
}
