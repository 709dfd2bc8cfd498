/**
 * The shell of the made-up servers: a small POSIX shell with the commands the job needs. What is
 * not there ends with an error that says so, never with a wrong result.
 */
package zander.standin.shell;
