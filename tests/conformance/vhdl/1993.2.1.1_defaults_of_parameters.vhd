-- IEEE 1076-1993 clause 2.1.1: what is left out takes its default
entity t is end;
architecture a of t is
  function sum(a : integer; b : integer := 10; c : integer := 100) return integer is
  begin
    return a + b + c;
  end;
begin
  process begin
    report integer'image(sum(1)) & " " & integer'image(sum(1, 2)) & " " & integer'image(sum(1, c => 5));
    wait;
  end process;
end;
--> note: 111 103 16
