-- IEEE 1076-1993 clause 1.1.1.2: by attributes of their own
entity m is
  port (x : in bit_vector; y : out bit);
end;
architecture a of m is
begin
  process (x)
    variable n : bit := '0';
  begin
    for i in x'range loop
      n := n xor x(i);
    end loop;
    y <= n;
  end process;
end;
entity t is end;
architecture a of t is
  signal p : bit_vector(2 downto 0) := "111";
  signal q : bit;
begin
  u : entity work.m port map (p, q);
  process begin
    wait for 1 ns;
    report bit'image(q);
    wait;
  end process;
end;
--> note: '1'
