// IEEE 1364-2005 clause 17.2.4: addresses of a memory file
module t;
  integer f;
  reg [7:0] m [0:3];
  initial begin
    f = $fopen("m.hex");
    $fdisplay(f, "@1 0a // one");
    $fdisplay(f, "0b");
    $fclose(f);
    m[0] = 0; m[3] = 3;
    $readmemh("m.hex", m);
    $display("%0d %0d %0d %0d", m[0], m[1], m[2], m[3]);
  end
endmodule
//> 0 10 11 3
