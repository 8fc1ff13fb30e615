// IEEE 1800-2017 clause 7.4.3: parts of elements, counted either way
module t;
  logic [3:0][3:0] m = 16'h4321;
  logic [0:3][3:0] n = 16'h4321;
  int i = 1;
  initial begin
    $display("%h %h %h", m[2:1], m[i +: 2], m[3 -: 2]);
    $display("%h %h %h", n[1:2], n[i +: 2], n[3 -: 2]);
    m[i +: 2] = 8'hAB;
    $display("%h", m);
  end
endmodule
//> 32 32 43
//> 32 32 21
//> 4ab1
