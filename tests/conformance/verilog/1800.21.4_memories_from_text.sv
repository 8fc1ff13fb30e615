// IEEE 1800-2017 clause 21.4: `$readmemh` with an address and remarks in the text
module t;
  logic [7:0] m [0:7];
  int f;
  initial begin
    foreach (m[i]) m[i] = 0;
    f = $fopen("t.hex", "w");
    $fdisplay(f, "11 // first");
    $fdisplay(f, "22");
    $fdisplay(f, "@5 a_b /* sixth */ xz");
    $fclose(f);
    $readmemh("t.hex", m);
    $display("%h %h %h %h %h", m[0], m[1], m[2], m[5], m[6]);
  end
endmodule
//> 11 22 00 ab xz
