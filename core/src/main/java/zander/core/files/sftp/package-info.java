/** The file service of a server: the protocol (draft-ietf-secsh-filexfer-02) and its extensions. */
package zander.core.files.sftp;
