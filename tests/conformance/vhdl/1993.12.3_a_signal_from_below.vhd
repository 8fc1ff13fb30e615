-- IEEE 1076-1993 clause 12.3: an architecture sees its own ports under their own names
entity m is port (x : in integer); end;
architecture a of m is
  signal s : integer;
begin
  s <= x * 2;
  process begin
    wait for 1 ns;
    report integer'image(s);
    wait;
  end process;
end;
entity t is end;
architecture a of t is
  signal s : integer := 21;
begin
  u : entity work.m port map (s);
end;
--> note: 42
