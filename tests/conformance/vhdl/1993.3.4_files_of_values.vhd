-- IEEE 1076-1993 clause 3.4: written, closed, read again
entity t is end;
architecture a of t is
  type log is file of integer;
begin
  process
    file f : log;
    variable n : integer;
  begin
    file_open(f, "log", write_mode);
    write(f, 4);
    write(f, 9);
    file_close(f);
    file_open(f, "log", read_mode);
    while not endfile(f) loop
      read(f, n);
      report integer'image(n);
    end loop;
    wait;
  end process;
end;
--> note: 4
--> note: 9
