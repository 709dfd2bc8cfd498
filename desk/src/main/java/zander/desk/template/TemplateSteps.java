package zander.desk.template;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.RemoteChanges;
import zander.core.change.save.FileVersion;
import zander.core.edit.FieldText;
import zander.core.files.RemotePath;
import zander.desk.edit.Languages;
import zander.desk.edit.LinkTargets;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Input;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * New files from a template or from another text: what is filled in is asked for, and links lead to
 * where they led. The file is made empty and opened with its text, which a save puts into it.
 * Interface thread only.
 */
public final class TemplateSteps {
  private static final Words WORDS = Words.of(TemplateSteps.class);

  /** Filled in by themselves. */
  private static final String DATE = "date";

  private static final String FILE = "file";

  private final OpenDesk desk;
  private final Templates templates;
  private final Sheet told;

  /**
   * @param told the sheet in front, in which is asked
   */
  public TemplateSteps(OpenDesk desk, Templates templates, Sheet told) {
    this.desk = desk;
    this.templates = templates;
    this.told = told;
  }

  /**
   * Keeps a text as a template, by a name that is asked for.
   *
   * @param isClosed whether others may not read the file on the server
   */
  public void keep(RemotePath file, String text, boolean isClosed) {
    StringProperty name = new SimpleStringProperty(file.name());
    Consumer<String> keep =
        server ->
            replacing(
                templates.isTaken(server, name.get().strip()),
                name.get().strip(),
                () -> {
                  templates.keep(
                      name.get().strip(),
                      new Templates.Template(server, file.parent().wire(), file.name(), text));
                  tell(new Message(WORDS.say("kept", name.get().strip()), WORDS.say("fieldsAre")));
                });
    told.ask(
        Question.asking(
                new Message(
                    WORDS.say("keepAs", file.name()),
                    WORDS.say("fieldsAre") + (isClosed ? " " + WORDS.say("inClear") : "")),
                List.of(new Input("template-name", WORDS.say("name"), name, "")),
                new Choice(WORDS.say("forThisServer"), ticked -> keep.accept(desk.address())),
                new Choice(WORDS.say("forAllServers"), ticked -> keep.accept("")),
                cancel())
            .readyWhen(Bindings.createBooleanBinding(() -> !name.get().isBlank(), name)));
  }

  /** Asks which template a new file in a folder begins with, and what is filled in. */
  public void make(RemotePath folder) {
    List<String> names = templates.names(desk.address());
    if (names.isEmpty()) {
      tell(new Message(WORDS.say("noTemplates"), WORDS.say("keepOne")));
      return;
    }
    StringProperty name = new SimpleStringProperty(names.size() == 1 ? names.get(0) : "");
    told.ask(
        Question.asking(
                new Message(
                    WORDS.say("newFileFrom", folder.name()),
                    WORDS.say("templatesAre", String.join(", ", names))),
                List.of(new Input("template-name", WORDS.say("template"), name, names.get(0))),
                new Choice(
                    WORDS.say("next"),
                    ticked -> meant(names, name).ifPresent(one -> askFields(folder, one.kept()))),
                new Choice(
                    WORDS.say("removeTemplate"),
                    ticked -> meant(names, name).ifPresent(this::askToRemove)),
                cancel())
            .readyWhen(
                Bindings.createBooleanBinding(
                    () -> Templates.meant(names, name.get()) != null, name)));
  }

  private record Chosen(String name, Templates.Template kept) {}

  private Optional<Chosen> meant(List<String> names, StringProperty typed) {
    String name = Templates.meant(names, typed.get());
    if (name == null) {
      return Optional.empty();
    }
    Templates.Template kept = templates.template(desk.address(), name);
    return kept == null ? Optional.empty() : Optional.of(new Chosen(name, kept));
  }

  private void askToRemove(Chosen template) {
    told.ask(
        Question.notice(
            new Message(WORDS.say("removeIt", template.name()), WORDS.say("onlyKeptHere")),
            true,
            new Choice(
                WORDS.say("removeTemplate"),
                ticked -> {
                  templates.remove(template.name(), template.kept());
                  told.dismissQuestion();
                }),
            cancel()));
  }

  /** Asks first where another of that name is kept. */
  private void replacing(boolean isTaken, String name, Runnable keep) {
    if (!isTaken) {
      keep.run();
      return;
    }
    told.ask(
        Question.notice(
            new Message(WORDS.say("taken", name), WORDS.say("onlyKeptHere")),
            true,
            new Choice(WORDS.say("replaceIt"), ticked -> keep.run()),
            cancel()));
  }

  private void askFields(RemotePath folder, Templates.Template template) {
    Map<String, StringProperty> values = new LinkedHashMap<>();
    StringProperty file = new SimpleStringProperty("");
    List<Input> inputs = new ArrayList<>();
    inputs.add(new Input("template-file", WORDS.say("fileName"), file, template.file()));
    Set<String> fields = FieldText.fields(template.text());
    for (String field : fields) {
      if (!field.equals(DATE) && !field.equals(FILE)) {
        StringProperty value = new SimpleStringProperty("");
        values.put(field, value);
        inputs.add(new Input("template-field-" + values.size(), field, value, ""));
      }
    }
    told.ask(
        Question.asking(
                new Message(WORDS.say("fillIn"), WORDS.say("madeEmpty")),
                inputs,
                new Choice(
                    WORDS.say("create"),
                    ticked -> {
                      Map<String, String> filled = new LinkedHashMap<>();
                      values.forEach((field, value) -> filled.put(field, value.get()));
                      RemotePath path = folder.resolve(file.get().strip());
                      filled.put(DATE, LocalDate.now(java.time.ZoneId.systemDefault()).toString());
                      filled.put(FILE, path.name());
                      String text = FieldText.fill(template.text(), filled);
                      RemotePath from =
                          RemotePath.ofWire(template.folder()).resolve(template.file());
                      create(path, moved(text, from, path));
                    }),
                cancel())
            .readyWhen(Bindings.createBooleanBinding(() -> !file.get().isBlank(), file)));
  }

  /** Asks where a text goes as a new file. */
  public void copy(RemotePath from, String text) {
    StringProperty name = new SimpleStringProperty("");
    told.ask(
        Question.asking(
                new Message(WORDS.say("copyInto", from.name()), WORDS.say("linksFollow")),
                List.of(new Input("template-file", WORDS.say("nameOrPath"), name, from.name())),
                new Choice(
                    WORDS.say("create"),
                    ticked -> {
                      RemotePath path = from.parent().resolve(name.get().strip());
                      create(path, moved(text, from, path));
                    }),
                cancel())
            .readyWhen(Bindings.createBooleanBinding(() -> !name.get().isBlank(), name)));
  }

  /** A text whose relative links lead from its new place to where they led from the old one. */
  private String moved(String text, RemotePath from, RemotePath to) {
    return new LinkTargets(desk, from, Languages.of(from, text)).moved(text, to.parent());
  }

  private void create(RemotePath path, String text) {
    desk.background()
        .run(
            () -> {
              new RemoteChanges(desk.files(), desk.commands(), desk.journal()).makeFile(path);
              return path;
            },
            made -> {
              told.dismissQuestion();
              desk.changed(List.of(made));
              desk.openFile(made, text, FileVersion.DIGEST_OF_NOTHING);
            },
            failure -> {
              tell(FailureWords.of(failure));
              desk.checkLine();
            });
  }

  private Choice cancel() {
    return new Choice(WORDS.say("cancel"), ticked -> told.dismissQuestion());
  }

  private void tell(Message said) {
    told.ask(
        Question.notice(
            said, false, new Choice(WORDS.say("close"), ticked -> told.dismissQuestion())));
  }
}
