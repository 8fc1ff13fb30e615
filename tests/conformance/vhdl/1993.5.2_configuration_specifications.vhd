-- IEEE 1076-1993 clause 5.2: choose an entity for a component
entity good is port (y : out integer); end;
architecture a of good is
begin
  y <= 1;
end;
entity t is end;
architecture a of t is
  component part port (y : out integer); end component;
  for u : part use entity work.good;
  signal s : integer;
begin
  u : part port map (s);
  process begin
    wait for 1 ns;
    report integer'image(s);
    wait;
  end process;
end;
--> note: 1
