/** The made-up servers speaking real SSH on loopback ports: sign-in, file service, exec, shell. */
package zander.standin.server;
