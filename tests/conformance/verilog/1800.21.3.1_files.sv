// IEEE 1800-2017 clause 21.3.1: what is written to a file is read again
module t;
  int f, n, a, b; string line;
  initial begin
    f = $fopen("out.txt", "w"); $fdisplay(f, "%0d %0d", 3, 4); $fwrite(f, "last"); $fclose(f);
    f = $fopen("out.txt", "r");
    n = $fscanf(f, "%d %d\n", a, b); $display("%0d %0d %0d", n, a, b);
    n = $fgets(line, f); $display("%0d %s", n, line);
    $display("%0d", $feof(f) != 0);
    $fclose(f);
  end
endmodule
//> 2 3 4
//> 4 last
//> 1
