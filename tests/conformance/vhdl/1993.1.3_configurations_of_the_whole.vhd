-- IEEE 1076-1993 clause 1.3: choose architectures from outside
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
  component m end component;
begin
  u : m;
end;
configuration c of t is
  for a
    for u : m use entity work.m(one);
    end for;
  end for;
end;
--> note: one
