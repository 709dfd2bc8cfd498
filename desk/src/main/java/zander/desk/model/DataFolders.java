package zander.desk.model;

import java.nio.file.Path;

/**
 * Where the program keeps its things on this computer.
 *
 * @param home the person's home folder, where keys and known hosts are
 * @param book the server book's file
 * @param state the folder for journals
 * @param vault the vault's file
 */
public record DataFolders(Path home, Path book, Path state, Path vault) {}
