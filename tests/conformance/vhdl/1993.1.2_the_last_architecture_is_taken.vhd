-- IEEE 1076-1993 clause 1.2: where none is named
entity m is end;
architecture one of m is
begin
  process begin
    report "one";
    wait;
  end process;
end;
architecture two of m is
begin
  process begin
    report "two";
    wait;
  end process;
end;
entity t is end;
architecture a of t is
begin
  u : entity work.m;
  v : entity work.m(one);
end;
--> note: two
--> note: one
