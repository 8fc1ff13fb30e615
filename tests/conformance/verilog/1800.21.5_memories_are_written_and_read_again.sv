// IEEE 1800-2017 clause 21.4, 21.5: $writememh
module m;
  logic [7:0] a [0:2], b [0:2];
  initial begin
    a[0] = 8'h1f; a[1] = 8'hxx; a[2] = 8'ha0;
    $writememh("m.hex", a);
    $readmemh("m.hex", b);
    $display("%h %h %h", b[0], b[1], b[2]);
  end
endmodule
//> 1f xx a0
