/** The OpenSSH client's configuration file, read and written by the rules of its manual page. */
package zander.core.config;
