package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import zander.core.change.DeleteTask;
import zander.core.change.PutBack;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.suite.HoldingContract.Way;

/** All that works on one folder. */
final class WorkBench implements AutoCloseable {
  final Connection connection;
  final RemoteFiles files;
  final RemotePath home;
  final RemotePath folder;
  final FileJournal journal;
  final Commands commands;
  final RemoteChanges changes;
  final DeleteTask deleting;
  final PutBack putBack;

  WorkBench(Way way, Connection connection, RemotePath folder, Path local) throws IOException {
    this.connection = connection;
    this.files = connection.files();
    this.home = connection.whoAmI().home();
    this.folder = folder;
    journal = new FileJournal(local.resolve("journal-" + way), "lab-box", JournalRules.USUAL);
    commands = way == Way.SHELL ? connection : new NoShell();
    assertThat(commands.hasShell()).isEqualTo(way == Way.SHELL);
    changes = new RemoteChanges(files, commands, journal);
    deleting = new DeleteTask(files, commands, journal, home);
    putBack = new PutBack(files, commands, journal, home);
  }

  Map<String, String> tree() throws IOException {
    return RemoteTree.describe(files, folder);
  }

  List<String> names() throws IOException {
    return files.list(folder, portion -> {}).stream()
        .map(entry -> entry.path().wireName())
        .toList();
  }

  RemotePath at(String name) {
    return RemotePath.of(folder.text() + "/" + name);
  }

  @Override
  public void close() throws IOException {
    journal.close();
    connection.close();
  }
}
